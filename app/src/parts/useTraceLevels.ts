import type { Calibration } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { repository, sentenceOf } from '../store';
import { designWorker } from './designs';
import { tellProblem } from './tell';

export interface TraceToShow {
  traceId: string;
  /** the microphone's file that it is seen through; null for none */
  calibration: Calibration | null;
}

const keyOf = ({ traceId, calibration }: TraceToShow) => `${traceId} ${calibration?.id ?? ''}`;

/** Levels of stored traces on the 1/48-octave grid, dB, in the order asked for; null for those not worked out yet. */
export function useTraceLevels(wanted: TraceToShow[]): (Float64Array | null)[] {
  const [levels, setLevels] = useState<ReadonlyMap<string, Float64Array>>(new Map());
  const keys = wanted.map(keyOf).join('\n');
  useEffect(() => {
    let current = true;
    const read = async () => {
      const found = new Map<string, Float64Array>();
      for (const item of wanted) {
        const array = await repository().array(item.traceId);
        if (!array) throw new Error('A trace has lost its samples; measure it again.');
        const { samples, rate, zero } = array;
        const key = keyOf(item);
        await designWorker().call((api) =>
          api.add({ key, samples, rate, zero, calibration: item.calibration }),
        );
        found.set(key, await designWorker().call((api) => api.level(key)));
      }
      if (current) setLevels(found);
    };
    read().catch((error: unknown) => current && tellProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the keys say all that matters of `wanted`
  }, [keys]);
  return wanted.map((item) => levels.get(keyOf(item)) ?? null);
}
