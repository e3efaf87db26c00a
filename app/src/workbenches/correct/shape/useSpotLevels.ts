import type { TraceSource } from '@pebble-hall/core/jobs';
import { useJob } from '../../../services/useJob';
import { useProblem } from '../../../services/useTraceLevels';

const NONE: Float64Array[] = [];

/** Levels of single spots as found, dB. */
export function useSpotLevels(sources: TraceSource[]): Float64Array[] {
  const { value, problem } = useJob('design.levels', sources.length > 0 ? sources : null);
  useProblem(problem);
  return value ?? NONE;
}
