import type { ExactChannel } from '@pebble-hall/core/correct';
import type { BeforeAfter } from '@pebble-hall/core/views';
import { formatHz } from '../../../charts/chartMath';
import { preRingingSentence } from '../../../words/preRinging';
import type { Look } from '../pages';

export type TimeLook = Exclude<Look, 'Level' | 'Filter'>;

/** The direct sound and what cannot be told apart from it. */
const DIRECT_MS = 2;
/** Where the step shows how the lows die away. */
const SWING = { fromMs: 20, toMs: 60 };
/** What has fallen below this is noise more than decay. */
const HEARD_DB = -40;

/** Reads phase, impulse, step or decay before and after in plain sentences. */
export function readTime(
  look: TimeLook,
  data: BeforeAfter,
  grid: Float64Array,
  { latencyS, ahead }: Pick<ExactChannel, 'latencyS' | 'ahead'>,
): string[] {
  switch (look) {
    case 'Phase':
      return [phase(data, grid), latency(latencyS)];
    case 'Impulse':
      return [preRingingSentence(ahead), late(data), latency(latencyS)];
    case 'Step':
      return [swing(data)];
    case 'Decay':
      return decay(data);
  }
}

function phase({ phase: { filter } }: BeforeAfter, grid: Float64Array): string {
  let most = 0;
  filter.forEach((v, i) => {
    if (Math.abs(v) > Math.abs(filter[most]!)) most = i;
  });
  const turn = Math.abs(filter[most]!);
  return turn < 1
    ? 'The filter leaves phase as it is.'
    : `The filter turns phase by ${turn.toFixed(0)}° at most, at ${formatHz(grid[most]!)}.`;
}

const latency = (s: number) =>
  s < 0.00005
    ? 'It makes the sound no later.'
    : `It makes the sound ${(1000 * s).toFixed(1)} ms later; all channels wait for each other.`;

const meanSquare = (values: Float32Array, fromMs: number, stepMs: number, part: [number, number]) => {
  const [from, to] = part.map((ms) => Math.max(0, Math.round((ms - fromMs) / stepMs))) as [number, number];
  let sum = 0;
  for (let i = from; i < Math.min(to, values.length); i++) sum += values[i]! ** 2;
  return sum / Math.max(1, to - from);
};

function late({ impulse: { fromMs, stepMs, before, after } }: BeforeAfter): string {
  const against = (values: Float32Array) =>
    10 *
    Math.log10(
      meanSquare(values, fromMs, stepMs, [DIRECT_MS, 60]) /
        meanSquare(values, fromMs, stepMs, [-1, DIRECT_MS]),
    );
  const change = against(after) - against(before);
  return Math.abs(change) < 0.2
    ? 'What follows the direct sound is as loud against it as before.'
    : `What follows within 60 ms is ${Math.abs(change).toFixed(1)} dB ${change < 0 ? 'quieter' : 'louder'} against the direct sound than as found.`;
}

function swing({ step: { fromMs, stepMs, before, after } }: BeforeAfter): string {
  const [was, is] = [before, after].map((values) =>
    Math.sqrt(meanSquare(values, fromMs, stepMs, [SWING.fromMs, SWING.toMs])),
  ) as [number, number];
  const change = 20 * Math.log10(is / was);
  return `From ${SWING.fromMs} to ${SWING.toMs} ms the step swings by ${is.toFixed(2)} of its height as found, ${was.toFixed(2)} before: ${
    Math.abs(change) < 0.5
      ? 'the lows die away as they did'
      : change < 0
        ? 'the lows die away sooner'
        : 'there is more of the lows'
  }.`;
}

function decay({ decay: { frequency, afterS, before, after } }: BeforeAfter): string[] {
  let [less, more] = [
    { db: 0, at: 0, s: 0 },
    { db: 0, at: 0, s: 0 },
  ];
  afterS.forEach((s, k) => {
    if (s === 0) return;
    frequency.forEach((f, i) => {
      if (before[k]![i]! < HEARD_DB && after[k]![i]! < HEARD_DB) return;
      const db = Math.max(HEARD_DB, after[k]![i]!) - Math.max(HEARD_DB, before[k]![i]!);
      if (db < less.db) less = { db, at: f, s };
      if (db > more.db) more = { db, at: f, s };
    });
  });
  const told = ({ db, at, s }: typeof less) =>
    `At ${formatHz(at)}, ${Math.abs(db).toFixed(1)} dB ${db < 0 ? 'less' : 'more'} is left after ${1000 * s} ms than as found.`;
  const out = [
    ...(less.db < -1 ? [told(less)] : []),
    ...(more.db > 1 ? [`${told(more)} It was raised there.`] : []),
  ];
  return out.length > 0 ? out : ['Below 500 Hz sound dies away as it did.'];
}
