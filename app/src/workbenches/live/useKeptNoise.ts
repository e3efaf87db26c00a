import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { unpackSpectrum } from '../../services/keepTrace';
import { notifyProblem } from '../../services/notify';
import { repository, sentenceOf } from '../../store';

/** Levels of the spectrum that is the room's own noise, dB re full scale; null where none was kept, or its bands are others. */
export function useKeptNoise({ live, kept }: Pick<Project, 'live' | 'kept'>): Float64Array | null {
  const trace = kept.find((k) => k.id === live.spectrum.noiseId);
  const arrayId = trace?.arrayId ?? null;
  const [read, setRead] = useState<{ arrayId: string; levelDb: Float64Array } | null>(null);
  useEffect(() => {
    if (arrayId === null) return;
    let isOver = false;
    repository()
      .array(arrayId)
      .then(
        (array) => {
          if (!isOver && array) setRead({ arrayId, levelDb: unpackSpectrum(array).levelDb });
        },
        (error: unknown) => notifyProblem(`The room's noise was not read: ${sentenceOf(error)}`),
      );
    return () => void (isOver = true);
  }, [arrayId]);
  const made = trace?.origin.by === 'live' ? trace.origin.spectrum : null;
  const fits = made?.bands === live.spectrum.bands && made.weighting === live.spectrum.weighting;
  return fits && read?.arrayId === arrayId ? read.levelDb : null;
}
