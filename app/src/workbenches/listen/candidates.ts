import { plainOutput } from '@pebble-hall/core/output';
import type { Correction, ListeningChain, Project } from '@pebble-hall/core/project';
import { traceOf } from '../../parts/designs';
import { exactFilters, outputsOf } from '../../parts/exactFilters';
import { baseOutputs } from '../../parts/baseOutputs';
import { sweepOf } from '../../parts/progress';
import type { ListenWay } from '../../workers/listen.worker';

export const AS_FOUND = 'as-found';

/** What can be listened to. */
export interface Candidate {
  /** 'as-found' or the id of a variant */
  source: string;
  name: string;
}

export const candidatesOf = (project: Project): Candidate[] => [
  { source: AS_FOUND, name: 'as found' },
  ...project.variants.map((v) => ({ source: v.id, name: v.name })),
];

export interface Place {
  spotId: string;
  leftId: string;
  rightId: string;
  through: 'room' | 'output';
}

/** A variant's correction as a listening chain changes it. */
const adjusted = (
  correction: Correction,
  chain: Pick<ListeningChain, 'strength' | 'style'> | null,
): Correction =>
  chain
    ? {
        ...correction,
        strength: correction.strength * chain.strength,
        filter: { ...correction.filter, style: chain.style },
      }
    : correction;

/** The ways of the sound in one candidate: what the two loudspeakers do, and the room from each to the spot. */
export async function waysOf(
  project: Project,
  { source }: Pick<Candidate, 'source'>,
  { spotId, leftId, rightId, through }: Place,
  chain: Pick<ListeningChain, 'strength' | 'style' | 'trimDb'> | null = null,
): Promise<ListenWay[]> {
  const base = await baseOutputs(project);
  const variant = project.variants.find((v) => v.id === source);
  const built = variant && (await builtOf(project, adjusted(variant.correction, chain), base.outputs));
  const ids = leftId === rightId ? [leftId] : [leftId, rightId];
  return Promise.all(
    ids.map(async (id, channel) => {
      const loudspeaker = project.place.loudspeakers.find((l) => l.id === id)!;
      const sweep = sweepOf(project, spotId, id);
      if (through === 'room' && !sweep)
        throw new Error(`there is no sweep of ${loudspeaker.name} at this spot; take it in the Mic walk.`);
      const impulse = through === 'room' ? await traceOf(sweep!, project.calibrations, 'impulse') : null;
      const before = base.outputs[loudspeaker.output - 1] ?? plainOutput();
      const set = built?.outputs[loudspeaker.output - 1] ?? before;
      const after = chain ? { ...set, trimDb: set.trimDb + chain.trimDb } : set;
      const fir = built?.filters[loudspeaker.output - 1] ?? null;
      return { channel, impulse, before, after, fir: fir && fir.length > 0 ? fir : null };
    }),
  );
}

async function builtOf(project: Project, correction: Correction, base: Parameters<typeof outputsOf>[3]) {
  const { exact } = await exactFilters(project, correction);
  return outputsOf(project, correction, exact, base);
}
