import { RENDER_RATE } from '@pebble-hall/core/auralisation';
import { limitsOf } from '@pebble-hall/core/processing';
import { STARTING_GOAL, type CorrectedHeadphones } from '@pebble-hall/core/correct';
import type { Headphones } from '@pebble-hall/core/project';
import { theProcessor } from '../../services/theProcessor';
import { useJob } from '../../services/useJob';
import { useProblem } from '../../services/useTraceLevels';

/** The correction of the headphones that are chosen; null while it is worked out, and without any. */
export function useHeadphones(headphones: Headphones | null): CorrectedHeadphones | null {
  const { value, problem } = useJob(
    'listen.headphones',
    headphones && {
      onEar: { frequency: headphones.frequency, levelDb: headphones.levelDb },
      goal: { ...STARTING_GOAL, target: headphones.target, strength: headphones.strength },
      // played by this computer, whatever the processor's rate
      processor: { ...limitsOf(theProcessor().profile), rate: RENDER_RATE },
    },
  );
  useProblem(problem);
  return value;
}
