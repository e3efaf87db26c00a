import type { Span } from '@pebble-hall/core/correct';
import { plainOutput } from '@pebble-hall/core/processing';
import type { MemoryLoad, Project, Variant } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { formatDb, formatHz } from '../../parts/chartMath';
import { baseOutputs } from '../../parts/baseOutputs';
import { designWorker, traceOf } from '../../parts/designs';
import { exactFilters, exactKey, outputsOf } from '../../parts/exactFilters';
import { designKey, sweepOf } from '../../parts/progress';
import { tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';
import { differenceOf } from './difference';

/** What a channel would be at a spot if a variant were loaded in place of what is in a memory, dB on the grid. */
async function predictedBy(
  project: Project,
  load: MemoryLoad,
  { correction }: Variant,
  channelId: string,
  spotId: string,
): Promise<Float64Array | null> {
  const found = sweepOf(project, spotId, channelId);
  const output = project.place.loudspeakers.find((l) => l.id === channelId)?.output;
  if (!found || !output) return null;
  const before = load.before ?? (await baseOutputs(project)).outputs;
  const { exact } = await exactFilters(project, correction);
  const { outputs, filters } = await outputsOf(project, correction, exact, before);
  const fir = filters[output - 1];
  const way = {
    trace: await traceOf(found, project.calibrations),
    before: before[output - 1] ?? plainOutput(),
    after: outputs[output - 1] ?? plainOutput(),
    fir: fir && fir.length > 0 ? fir : null,
    feed: null,
  };
  return designWorker().call((api) => api.heard([way]));
}

/** The same for the screen: null until it is worked out, and where nothing is asked for. */
export function useVariantBeside(
  project: Project,
  load: MemoryLoad | null,
  variant: Variant | null,
  channelId: string | null,
  spotId: string,
): Float64Array | null {
  const [state, setState] = useState<{ key: string; levels: Float64Array | null } | null>(null);
  const key =
    load && variant && channelId
      ? [
          load.id,
          exactKey(project, variant.correction),
          designKey(project, variant.correction),
          channelId,
          spotId,
        ].join('|')
      : null;
  useEffect(() => {
    if (!key || !load || !variant || !channelId) return;
    let current = true;
    predictedBy(project, load, variant, channelId, spotId)
      .then((levels) => current && setState({ key, levels }))
      .catch((error: unknown) => current && tellProblem(`${variant.name}: ${sentenceOf(error)}`));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names all that it is computed from
  }, [key]);
  return state && state.key === key ? state.levels : null;
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
    ? `${variant.name} would do the same as memory ${memory.letter} here.`
    : `${variant.name} would differ from memory ${memory.letter} by ${formatDb(db)} at ${formatHz(worstAt)} at most.`;
}
