import type { Span } from '@pebble-hall/core/correct';
import { designGround, traceRef, type DesignGround } from '@pebble-hall/core/jobs';
import { plainOutput } from '@pebble-hall/core/processing';
import {
  sweepOf,
  type MemoryLoad,
  type Project,
  type Variant,
  loudspeakerById,
  filterPart,
} from '@pebble-hall/core/project';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { memoryWords } from '../../../words/memoryName';
import { baseOutputs } from '../../../services/baseOutputs';
import type { Job } from '../../../services/derivation';
import { exactFilters, outputsOf } from '../../../services/exactFilters';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import { useProblem } from '../../../services/useTraceLevels';
import { differenceOf } from './difference';

interface Asked {
  ground: DesignGround;
  load: MemoryLoad;
  variant: Variant;
  channelId: string;
  spotId: string;
}

/** What a channel would be at a spot if a variant were loaded in place of what is in a memory, dB on the grid. */
async function predictedBy(
  { ground, load, variant: { correction }, channelId, spotId }: Asked,
  { signal }: Job,
): Promise<Float64Array | null> {
  const found = sweepOf(ground, spotId, channelId);
  const output = loudspeakerById(ground.place, channelId)?.output;
  if (!found || !output) return null;
  const before = load.before ?? (await baseOutputs(ground)).outputs;
  const { exact } = await exactFilters(ground, filterPart(correction), { signal });
  const { outputs, filters } = await outputsOf(ground, correction, exact, before);
  const fir = filters[output - 1];
  const heard = {
    trace: traceRef(found, ground.calibrations),
    before: before[output - 1] ?? plainOutput(),
    after: outputs[output - 1] ?? plainOutput(),
    fir: fir && fir.length > 0 ? fir : null,
    feed: null,
  };
  return runJob('design.heard', [heard], { signal });
}

/** The same for the screen: null until it is worked out, and where nothing is asked for. */
export function useVariantBeside(
  project: Project,
  load: MemoryLoad | null,
  variant: Variant | null,
  channelId: string | null,
  spotId: string,
): Float64Array | null {
  const asked =
    load && variant && channelId ? { ground: designGround(project), load, variant, channelId, spotId } : null;
  const { value, problem } = useDerived(asked, predictedBy);
  useProblem(problem && `${variant?.name}: ${problem}`);
  return value;
}

/** Less than this is no difference between a memory and a variant. */
const ALIKE_DB = 0.1;

/** How a variant differs from what a memory makes of a channel, in one sentence; 1/6 octave within the span. */
export function besideVariantWords(
  grid: Float64Array,
  memory: { letter: string; predictedDb: Float64Array; span: Span },
  variant: { name: string; levelDb: Float64Array },
): string {
  const of = (levelDb: Float64Array) => ({ levelDb, margins: [] }); // neither was measured: no noise to allow for
  const { worstDb: db, worstAt } = differenceOf(
    grid,
    memory.predictedDb,
    of(memory.predictedDb),
    of(variant.levelDb),
    memory.span,
  );
  return Math.abs(db) < ALIKE_DB
    ? `${variant.name} would do the same as ${memoryWords(memory)} here.`
    : `${variant.name} would differ from ${memoryWords(memory)} by ${formatDb(db)} at ${formatHz(worstAt)} at most.`;
}
