import { largestOfSum, largestTone, type LargestTone, type Section } from '../correct/index.js';
import { crossoverBiquads, type CrossoverFilter, type SubSetting } from '../alignment/index.js';
import { outputBiquads, type BassFeed, type OutputSettings } from './settings.js';

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
}

/** Name of the low-frequency channel among the largest gains. */
export const LOW_CHANNEL = 'low-frequency channel';

export interface BuiltOutputs {
  outputs: OutputSettings[];
  /** one per output, empty where there is none */
  filters: Float32Array[];
  /** by how much everything was lowered so that no tone goes beyond full scale, dB; 0 when nothing was */
  guardDb: number;
  /** largest gain of each channel's chain, before it was lowered */
  largest: Record<string, LargestTone>;
  /** what is asked of the subwoofer that gains most when all inputs that send bass carry the same at once; not guarded against; null where fewer than two do */
  allAtOnce: (LargestTone & { id: string; feeds: number }) | null;
}

/** What a processor of this kind can store. */
export interface OutputSteps {
  rate: number;
  leastTrimDb: number;
  mostTrimDb: number;
  mostDelayMs: number;
}

/** How outputs are built. */
export interface BuildOptions {
  guard: boolean;
  fitted: number[];
  steps: OutputSteps;
  low: { input: number; feed: BassFeed } | null;
}

/**
 * Settings and filters of all outputs: a correction on top of what the processor did while the room was measured.
 * @param base all outputs as they were then
 * @param guard lowers every output that plays (`fitted`, from 1) by the largest gain of any chain
 * @param low the input (from 1) that plays on the subwoofers alone, and how; null for none
 * @throws RangeError naming the channel whose trim or delay the processor cannot hold
 */
export function buildOutputs(
  base: OutputSettings[],
  channels: OutputCorrection[],
  { guard, fitted, steps, low }: BuildOptions,
): BuiltOutputs {
  const outputs = base.map((o) => ({ ...o }));
  const filters: Float32Array[] = base.map(() => new Float32Array(0));
  const largest: Record<string, LargestTone> = {};
  for (const { id, output, fir, sections, alignment, sub, role, crossovers } of channels) {
    const was = base[output - 1];
    if (!was) throw new RangeError(`${id}: the processor has no output ${output}`);
    const next: OutputSettings = {
      ...was,
      trimDb: step(was.trimDb + (alignment?.trimDb ?? 0) + (sub?.gainDb ?? 0), 0.1),
      delayMs: step(was.delayMs + (alignment?.delayMs ?? 0) + 1000 * (sub?.delayS ?? 0), 0.001),
      inverted: [was.inverted, alignment?.inverted, sub?.inverted].filter(Boolean).length % 2 === 1,
      sections: [...was.sections, ...(sub?.sections ?? []), ...sections],
      taps: fir?.length ?? 0,
      ...(crossovers && crossed(role, crossovers, was)),
    };
    outputs[output - 1] = next;
    if (fir) filters[output - 1] = fir;
    largest[id] = largestTone(
      { fir, sections: outputBiquads(next, steps.rate), trimDb: next.trimDb },
      steps.rate,
    );
  }
  if (low) {
    if (!outputs[low.input - 1])
      throw new RangeError(`${LOW_CHANNEL}: the processor has no input ${low.input}`);
    outputs[low.input - 1] = { ...outputs[low.input - 1]!, bassFeed: low.feed };
  }
  const subs = channels.filter((c) => c.role === 'subwoofer');
  const anyFeed = outputs.some((o) => o.bassFeed);
  for (const { output } of subs) outputs[output - 1] = { ...outputs[output - 1]!, playsBass: anyFeed };
  if (low && subs.length > 0) {
    const feedBiquads = crossoverBiquads('lowpass', low.feed.lowPass, steps.rate);
    const each = subs.map(({ output, fir }) => {
      const o = outputs[output - 1]!;
      const own = [...feedBiquads, ...outputBiquads(o, steps.rate)];
      return largestTone({ fir, sections: own, trimDb: o.trimDb + low.feed.gainDb }, steps.rate);
    });
    largest[LOW_CHANNEL] = each.reduce((a, b) => (b.toneDb > a.toneDb ? b : a));
  }
  const feeds = outputs.flatMap(({ bassFeed }) =>
    bassFeed
      ? {
          fir: null,
          sections: crossoverBiquads('lowpass', bassFeed.lowPass, steps.rate),
          trimDb: bassFeed.gainDb,
        }
      : [],
  );
  const allAtOnce = feeds.length > 1 ? largestAtOnce() : null;
  const most = Math.max(0, ...Object.values(largest).map((h) => h.toneDb));
  const guardDb = guard ? Math.max(0, Math.ceil(10 * most - 0.01) / 10) : 0;
  for (const output of fitted) {
    const o = outputs[output - 1]!;
    outputs[output - 1] = { ...o, trimDb: step(o.trimDb - guardDb, 0.1) };
  }
  for (const { id, output } of channels) {
    const { trimDb, delayMs } = outputs[output - 1]!;
    if (!(trimDb >= steps.leastTrimDb && trimDb <= steps.mostTrimDb))
      throw new RangeError(`${id}: a trim of ${trimDb} dB is more than the processor takes`);
    if (!(delayMs >= 0 && delayMs <= steps.mostDelayMs))
      throw new RangeError(`${id}: a delay of ${delayMs} ms is more than the processor takes`);
  }
  return { outputs, filters, guardDb, largest, allAtOnce };

  function largestAtOnce(): BuiltOutputs['allAtOnce'] {
    const tones = largestOfSum(
      feeds,
      subs.map(({ output, fir }) => {
        const o = outputs[output - 1]!;
        return { fir, sections: outputBiquads(o, steps.rate), trimDb: o.trimDb };
      }),
      steps.rate,
    ).map((tone, i) => ({ id: subs[i]!.id, feeds: feeds.length, ...tone }));
    return tones.length > 0 ? tones.reduce((a, b) => (b.toneDb > a.toneDb ? b : a)) : null;
  }
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

const step = (v: number, by: number) => Number((Math.round(v / by) * by).toFixed(6)) + 0;
