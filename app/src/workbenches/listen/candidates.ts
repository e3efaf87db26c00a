import { drivesOf, plainOutput, type Drive, type OutputSettings } from '@pebble-hall/core/processing';
import {
  type Correction,
  type ListeningChain,
  type Project,
  sweepOf,
  verifiedOf,
  loudspeakerById,
  loudspeakerOn,
  filterPart,
} from '@pebble-hall/core/project';
import { traceRef } from '@pebble-hall/core/jobs';
import { resampleFir } from '@pebble-hall/core/signal';
import { RENDER_RATE, type CandidateOutput } from '@pebble-hall/core/auralisation';
import type { CorrectedHeadphones } from '@pebble-hall/core/correct';
import { exactFilters, outputsOf } from '../../services/exactFilters';
import { memoryWords } from '../../words/memoryName';
import { baseOutputs } from '../../services/baseOutputs';
import { theProcessor } from '../../services/theProcessor';
import { repository } from '../../store';
import { loadTrace } from '../../services/loadTrace';

export const AS_FOUND = 'as-found';

/** What can be listened to. */
export interface Candidate {
  /** 'as-found' or the id of a variant */
  source: string;
  name: string;
}

/** What the memory loaded last makes of it: as it was measured again where it was, else as it is predicted. */
export const AS_LEFT = 'as-left';

export const candidatesOf = (project: Project): Candidate[] => [
  { source: AS_FOUND, name: 'as found' },
  ...(project.loads.at(-1)?.outputs
    ? [{ source: AS_LEFT, name: `as left, ${memoryWords(project.loads.at(-1)!)}` }]
    : []),
  ...project.variants.map((v) => ({ source: v.id, name: v.name })),
];

/** Which of two loudspeakers give up their bass to the subwoofers in a candidate: at the output alone they play it themselves. */
export function playingOwnBass(
  project: Project,
  { source }: Pick<Candidate, 'source'>,
  { leftId, rightId }: Pick<Place, 'leftId' | 'rightId'>,
): string[] {
  const variant = project.variants.find((v) => v.id === source);
  const load = source === AS_LEFT ? project.loads.at(-1) : undefined;
  return project.place.loudspeakers
    .filter(({ id, output, role }) => {
      if (role !== 'full range' || (id !== leftId && id !== rightId)) return false;
      return load ? load.outputs?.[output - 1]?.bassFeed : variant?.correction.crossovers[id]?.highPass;
    })
    .map((l) => l.name);
}

export interface Place {
  spotId: string;
  leftId: string;
  rightId: string;
  /** others that play what the left one plays, together with it */
  alsoIds?: string[];
  through: ListeningChain['through'];
}

/** Headphones with their correction. */
export const HEADPHONES = 'headphones';
export const headphoneCandidates = (name: string): Candidate[] => [
  { source: AS_FOUND, name: 'as they are' },
  { source: HEADPHONES, name: `${name}, corrected` },
];

/** Both sides of headphones: nothing else in the way than their correction, lowered by its largest gain. */
function headphoneWays(
  source: string,
  corrected: CorrectedHeadphones | null,
  trimDb: number,
): CandidateOutput[] {
  const plain = plainOutput();
  if (source === HEADPHONES && !corrected)
    throw new Error('the correction of the headphones is not ready yet.');
  const own = source === HEADPHONES ? corrected : null;
  const after = { ...plain, trimDb: trimDb - Math.max(0, own?.toneDb ?? 0) };
  return [0, 1].map((channel) => ({
    channel,
    impulse: null,
    before: plain,
    after,
    fir: own?.fir ?? null,
    feed: null,
  }));
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

/** An output whose bass is not sent away: where no subwoofer plays, the sum of both parts of a crossover is what is left of it. */
const withItsBass = (set: OutputSettings): OutputSettings =>
  set.bassFeed ? { ...set, size: 'large', highPass: null, bassFeed: null } : set;

/** The ways of the sound in one candidate: what the two loudspeakers do, and the room from each to the spot. */
export async function waysOf(
  project: Project,
  { source }: Pick<Candidate, 'source'>,
  { spotId, leftId, rightId, alsoIds = [], through }: Place,
  chain: Pick<ListeningChain, 'strength' | 'style' | 'trimDb'> | null = null,
  corrected: CorrectedHeadphones | null = null,
): Promise<CandidateOutput[]> {
  if (through === 'headphones') return headphoneWays(source, corrected, chain?.trimDb ?? 0);
  const base = await baseOutputs(project);
  const variant = project.variants.find((v) => v.id === source);
  const built = variant && (await builtOf(project, adjusted(variant.correction, chain), base.outputs));
  const load = source === AS_LEFT ? project.loads.at(-1) : undefined;
  const outputs = load?.outputs ?? built?.outputs ?? base.outputs;
  const { loudspeakers } = project.place;
  /** One loudspeaker as a channel of the material reaches it. */
  const wayOf = async ({ output, feed }: Drive, channel: number): Promise<CandidateOutput[]> => {
    const loudspeaker = loudspeakerOn({ loudspeakers }, output);
    if (!loudspeaker) return [];
    const { id } = loudspeaker;
    const sweep = sweepOf(project, spotId, id);
    if (through === 'room' && !sweep)
      throw new Error(
        `there is no sweep of ${loudspeaker.name} at this spot${feed ? ', and bass goes there' : ''}; take it in the Mic walk.`,
      );
    const again = load && verifiedOf(project, load, id, spotId);
    if (again && through === 'room') {
      const measured = await loadTrace(traceRef(again, project.calibrations, 'impulse'));
      return [{ channel, impulse: measured, before: plainOutput(), after: plainOutput(), fir: null, feed }];
    }
    const impulse =
      through === 'room' ? await loadTrace(traceRef(sweep!, project.calibrations, 'impulse')) : null;
    const before = base.outputs[output - 1] ?? plainOutput();
    const set = outputs[output - 1] ?? before;
    const own = through === 'room' ? set : withItsBass(set);
    const after = chain ? { ...own, trimDb: own.trimDb + chain.trimDb } : own;
    const filterId = load?.filters[id];
    const loaded = filterId ? await repository().array(filterId) : null;
    const taps = loaded?.samples ?? built?.filters[output - 1] ?? null;
    const fir = taps && taps.length > 0 ? asPlayed(taps, loaded?.rate ?? theProcessor().profile.rate) : null;
    return [{ channel, impulse, before, after, fir, feed }];
  };
  const sides = leftId === rightId ? [leftId] : [leftId, rightId];
  const playing = [
    ...sides.map((id, channel) => ({ id, channel })),
    ...alsoIds.filter((id) => !sides.includes(id)).map((id) => ({ id, channel: 0 })),
  ];
  const ways = playing.flatMap(({ id, channel }) => {
    const { output } = loudspeakerById({ loudspeakers }, id)!;
    // in the room a channel is heard with its bass from the subwoofers; at the output it plays its bass itself
    const drives = through === 'room' ? drivesOf(outputs, output) : [{ output, feed: null }];
    return drives.map((drive) => wayOf(drive, channel));
  });
  return (await Promise.all(ways)).flat();
}

/** A processor's filter at the rate at which pieces are made. */
const asPlayed = (fir: Float32Array, rate: number): Float32Array =>
  rate === RENDER_RATE ? fir : Float32Array.from(resampleFir(fir, rate, RENDER_RATE).fir);

async function builtOf(project: Project, correction: Correction, base: Parameters<typeof outputsOf>[3]) {
  const { exact } = await exactFilters(project, filterPart(correction));
  return outputsOf(project, correction, exact, base);
}
