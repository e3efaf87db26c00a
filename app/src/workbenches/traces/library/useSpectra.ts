import type { Project } from '@pebble-hall/core/project';
import { LIBRARY_GRID, spectrumOnGrid } from '@pebble-hall/core/traces';
import { useEffect, useMemo, useState } from 'react';
import type { LiveCurve } from '../../../charts/drawLive';
import { unpackSpectrum } from '../../../services/keepTrace';
import { repository } from '../../../store';

/**
 * Spectra of the library that are shown, as curves on its points: as sound pressure levels where all of them are calibrated,
 * otherwise re full scale.
 * @param shown ids and colours of what is shown
 */
export function useSpectra(
  project: Project,
  shown: ReadonlyMap<string, string>,
  chosen: readonly string[],
): { curves: LiveCurve[]; unit: string } {
  const [levels, setLevels] = useState<ReadonlyMap<string, Float64Array>>(new Map());
  const traces = useMemo(
    () => project.kept.filter((k) => k.kind === 'spectrum' && shown.has(k.id)),
    [project.kept, shown],
  );
  useEffect(() => {
    let isOver = false;
    for (const { arrayId } of traces)
      if (arrayId !== null && !levels.has(arrayId))
        void repository()
          .array(arrayId)
          .then((array) => {
            if (isOver || !array) return;
            const { frequency, levelDb } = unpackSpectrum(array);
            setLevels((now) => new Map(now).set(arrayId, spectrumOnGrid(frequency, levelDb, LIBRARY_GRID)));
          });
    return () => void (isOver = true);
  }, [traces, levels]);
  return useMemo(() => {
    const offsets = traces.map(({ origin }) =>
      origin.by === 'live' ? (origin.spectrum?.splOffsetDb ?? null) : null,
    );
    const isSpl = offsets.length > 0 && offsets.every((o) => o !== null);
    return {
      unit: isSpl ? 'dB SPL' : 'dBFS',
      curves: traces.flatMap((k, i): LiveCurve[] => {
        const values = levels.get(k.arrayId ?? '');
        if (!values) return [];
        const add = k.view.gainDb + (isSpl ? offsets[i]! : 0);
        const width = chosen.includes(k.id) ? 2.6 : 1.6;
        return [{ colour: shown.get(k.id)!, values: values.map((v) => v + add), width }];
      }),
    };
  }, [traces, levels, shown, chosen]);
}
