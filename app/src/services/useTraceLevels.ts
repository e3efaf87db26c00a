import type { TraceRef } from '@pebble-hall/core/jobs';
import type { Calibration } from '@pebble-hall/core/project';
import { useEffect } from 'react';
import { notifyProblem } from './notify';
import { useJob } from './useJob';

export interface TraceToShow {
  traceId: string;
  /** the microphone's file that it is seen through; null for none */
  calibration: Calibration | null;
}

/** Levels of stored traces on the 1/48-octave grid, dB, in the order asked for; null for those not worked out yet. */
export function useTraceLevels(wanted: TraceToShow[]): (Float64Array | null)[] {
  const refs = wanted.map(({ traceId, calibration }): TraceRef => ({
    arrayId: traceId,
    calibration,
    gainDb: 0,
  }));
  const { value, problem } = useJob('design.levels', refs.length > 0 ? refs : null);
  useProblem(problem);
  return wanted.map((_, i) => value?.[i] ?? null);
}

/** Tells a problem once it comes up. */
export function useProblem(problem: string | null): void {
  useEffect(() => {
    if (problem) notifyProblem(problem);
  }, [problem]);
}
