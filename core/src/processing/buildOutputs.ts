import {
  allPassAsSection,
  headroomOf,
  inSeries,
  largestOfSum,
  type AllPassSection,
  type CrossoverFilter,
  type Headroom,
  type LargestTone,
  type Section,
} from '../path/index.js';
import { feedPath } from './bass.js';
import { inSteps } from '../signal/index.js';
import type { ProcessorProfile } from './profile.js';
import type { SubSetting } from './subSetting.js';
import { outputPath, type BassFeed, type OutputSettings } from './settings.js';

/** What a correction does to one output. */
export interface OutputCorrection {
  id: string;
  /** from 1 */
  output: number;
  fir: Float32Array | null;
  sections: Section[];
  alignment: { trimDb: number; delayMs: number; inverted: boolean } | null;
  sub: SubSetting | null;
  role: 'full range' | 'subwoofer';
  /** a full-range channel's low-pass is that of its bass on the way to the subwoofers, a subwoofer's is its own */
  crossovers: { highPass: CrossoverFilter | null; lowPass: CrossoverFilter | null } | null;
  /** what turns its phase so that it adds up with others */
  allPasses: AllPassSection[];
}

export interface BuiltOutputs {
  outputs: OutputSettings[];
  /** one per output, empty where there is none */
  filters: Float32Array[];
  /** by how much everything was lowered so that nothing that is guarded against goes beyond full scale, dB; 0 when nothing was */
  guardDb: number;
  /** what each channel's path asks of headroom by its id, before it was lowered */
  headroom: Record<string, Headroom>;
  /** the same of the low-frequency channel; null without one */
  lowHeadroom: Headroom | null;
  /** what is asked of the subwoofer that gains most when all inputs that send bass carry the same at once; not guarded against; null where fewer than two do */
  allAtOnce: (LargestTone & { id: string; feeds: number }) | null;
}

/** Signals that a guard keeps from going beyond full scale: tones and what is like programme, or squares as well. */
export type GuardedSignals = 'programme' | 'full scale';

/** The peak of such signals at full scale behind a path, dB. */
export const guardedPeakDb = (h: Headroom, signals: GuardedSignals): number =>
  Math.max(h.toneDb, h.programmeDb, signals === 'full scale' ? h.fullScaleDb : -Infinity);

/** How outputs are built. */
export interface BuildOptions {
  guard: 'off' | GuardedSignals;
  /** outputs that a loudspeaker is on, from 1 */
  fitted: number[];
  profile: Pick<
    ProcessorProfile,
    | 'rate'
    | 'frequencyStepHz'
    | 'qStep'
    | 'leastTrimDb'
    | 'mostTrimDb'
    | 'trimStepDb'
    | 'mostDelayMs'
    | 'delayStepMs'
  >;
  low: { input: number; feed: BassFeed } | null;
}

/**
 * Settings and filters of all outputs: a correction on top of what the processor did while the room was measured.
 * @param base all outputs as they were then
 * @param guard lowers every output that plays (`fitted`) by the largest peak of any path, of the signals that are guarded against
 * @param low the input (from 1) that plays on the subwoofers alone, and how; null for none
 * @throws RangeError naming the channel whose trim or delay the processor cannot hold
 */
export function buildOutputs(
  base: OutputSettings[],
  channels: OutputCorrection[],
  { guard, fitted, profile, low }: BuildOptions,
): BuiltOutputs {
  if (low && !base[low.input - 1])
    throw new RangeError(`low-frequency channel: the processor has no input ${low.input}`);
  const corrected = new Map(channels.map((channel) => [channel.output, correct(base, channel, profile)]));
  const subs = channels.filter((c) => c.role === 'subwoofer');
  const playing = new Set(subs.map((c) => c.output));
  const fed = base.map((was, i) => {
    const settings = corrected.get(i + 1) ?? { ...was };
    return low?.input === i + 1 ? { ...settings, bassFeed: low.feed } : settings;
  });
  const anyFeed = fed.some((o) => o.bassFeed);
  const outputs = fed.map((o, i) => (playing.has(i + 1) ? { ...o, playsBass: anyFeed } : o));

  const pathOf = ({ output, fir }: OutputCorrection) => outputPath(outputs[output - 1]!, fir, profile.rate);
  const headroom = Object.fromEntries(channels.map((c) => [c.id, headroomOf(pathOf(c))]));
  const lowFeed = low && feedPath(low.feed, profile.rate);
  const lowHeadroom =
    lowFeed &&
    largestBy(
      subs.map((c) => headroomOf(inSeries(lowFeed, pathOf(c)))),
      (h) => (guard === 'off' ? h.fullScaleDb : guardedPeakDb(h, guard)),
    );
  const feeds = outputs.flatMap(({ bassFeed }) => (bassFeed ? [feedPath(bassFeed, profile.rate)] : []));
  const sums = feeds.length > 1 ? largestOfSum(feeds, subs.map(pathOf)) : [];

  const all = [...Object.values(headroom), ...(lowHeadroom ? [lowHeadroom] : [])];
  const most = guard === 'off' ? 0 : Math.max(0, ...all.map((h) => guardedPeakDb(h, guard)));
  const guardDb = Math.max(0, Math.ceil(10 * most - 0.01) / 10);
  const guarded = outputs.map((o, i) =>
    fitted.includes(i + 1) ? { ...o, trimDb: inSteps(o.trimDb - guardDb, profile.trimStepDb) } : o,
  );
  for (const { id, output } of channels) refuseBeyond(id, guarded[output - 1]!, profile);
  const firs = new Map(channels.map(({ output, fir }) => [output, fir]));
  return {
    outputs: guarded,
    filters: base.map((_, i) => firs.get(i + 1) ?? new Float32Array(0)),
    guardDb,
    headroom,
    lowHeadroom,
    allAtOnce: largestBy(
      sums.map((tone, i) => ({ id: subs[i]!.id, feeds: feeds.length, ...tone })),
      (tone) => tone.toneDb,
    ),
  };
}

/** An output with its correction on top of what it did. */
function correct(
  base: OutputSettings[],
  { id, output, fir, sections, alignment, sub, role, crossovers, allPasses }: OutputCorrection,
  { trimStepDb, delayStepMs, frequencyStepHz, qStep }: BuildOptions['profile'],
): OutputSettings {
  const was = base[output - 1];
  if (!was) throw new RangeError(`${id}: the processor has no output ${output}`);
  return {
    ...was,
    trimDb: inSteps(was.trimDb + (alignment?.trimDb ?? 0) + (sub?.gainDb ?? 0), trimStepDb),
    delayMs: inSteps(was.delayMs + (alignment?.delayMs ?? 0) + 1000 * (sub?.delayS ?? 0), delayStepMs),
    inverted: [was.inverted, alignment?.inverted, sub?.inverted].filter(Boolean).length % 2 === 1,
    sections: [
      ...was.sections,
      ...(sub?.sections ?? []),
      ...sections,
      ...allPasses.map(allPassAsSection).map((s) => ({
        ...s,
        frequency: inSteps(s.frequency, frequencyStepHz),
        q: inSteps(s.q, qStep),
      })),
    ],
    taps: fir?.length ?? 0,
    ...(crossovers && crossed(role, crossovers, was)),
  };
}

/** A full-range channel sends away what its high-pass takes from it; a subwoofer's low-pass is on its own output. */
function crossed(
  role: OutputCorrection['role'],
  { highPass, lowPass }: NonNullable<OutputCorrection['crossovers']>,
  was: OutputSettings,
): Partial<OutputSettings> {
  const size = highPass ? ('small' as const) : ('large' as const);
  if (role === 'subwoofer') return { highPass, lowPass, size };
  return {
    highPass,
    size,
    lowPass: was.lowPass,
    bassFeed: highPass || lowPass ? { gainDb: 0, lowPass } : null,
  };
}

function refuseBeyond(
  id: string,
  { trimDb, delayMs }: OutputSettings,
  { leastTrimDb, mostTrimDb, mostDelayMs }: BuildOptions['profile'],
): void {
  if (!(trimDb >= leastTrimDb && trimDb <= mostTrimDb))
    throw new RangeError(`${id}: a trim of ${trimDb} dB is more than the processor takes`);
  if (!(delayMs >= 0 && delayMs <= mostDelayMs))
    throw new RangeError(`${id}: a delay of ${delayMs} ms is more than the processor takes`);
}

const largestBy = <T>(list: T[], size: (item: T) => number): T | null =>
  list.length > 0 ? list.reduce((a, b) => (size(b) > size(a) ? b : a)) : null;
