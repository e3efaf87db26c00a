import { needAbove, needFinite, needWhole } from '../limits/index.js';
import type { RealArray } from '../signal/index.js';

/** How a squared response sinks. Times in seconds from `start`. */
export interface Decay {
  /** step between points of `levelDb`, seconds */
  stepS: number;
  /** Schroeder curve, dB re its start, down to where the decay meets the noise */
  levelDb: Float64Array;
  /** from the start of the curve down to the noise, dB; Infinity without noise */
  rangeDb: number;
  /** where the decay meets the noise; the end of the response without any */
  kneeS: number;
}

/** Steps in which the curve is kept. */
const STEP_S = 0.002;
/** The knee is settled after so many rounds (Lundeby et al. 1995). */
const ROUNDS = 6;

/**
 * Schroeder backward integration with noise compensation (ISO 3382-1:2009, 5.3.3): the squared response is integrated
 * back from the knee where its decay meets the noise (Lundeby et al., Acustica 81, 1995), the noise's energy taken off,
 * and what an exponential decay would still hold behind the knee put on.
 * @param response filtered; `start` and `end` are sample indices [start, end) between which it is looked at
 * @param slowestHz the lowest frequency in it: energies are averaged over some of its periods
 * @returns null when nothing decays there: fewer than 8 blocks, or less than 6 dB over the noise
 */
export function findDecay(
  response: RealArray,
  rate: number,
  { start, end, slowestHz }: { start: number; end: number; slowestHz: number },
): Decay | null {
  needAbove('findDecay', 'rate', rate, 0);
  needAbove('findDecay', 'slowest frequency', slowestHz, 0);
  needWhole('findDecay', 'start', start, 0, response.length);
  needWhole('findDecay', 'end', end, start, response.length);
  needFinite('findDecay', 'response', response);
  const block = Math.round(rate * Math.max(0.01, 2 / slowestHz));
  const count = Math.floor((end - start) / block);
  if (count < 8) return null;
  const blocks = new Float64Array(count);
  for (let b = 0; b < count; b++) {
    let sum = 0;
    for (let i = start + b * block; i < start + (b + 1) * block; i++) sum += response[i]! ** 2;
    blocks[b] = sum / block;
  }
  const knee = findKnee(blocks);
  if (!knee) return null;
  const { at, noise, dropPerBlock } = knee;
  const kneeIndex = Math.min(end, start + Math.round(at * block));

  // behind the knee an exponential would go on: level there, integrated to infinity
  const levelAtKnee = 10 ** ((knee.offsetDb - dropPerBlock * at) / 10);
  const tail = (levelAtKnee * block) / ((dropPerBlock / 10) * Math.LN10);
  const step = Math.max(1, Math.round(STEP_S * rate));
  const points = Math.floor((kneeIndex - start) / step);
  if (points < 8) return null;
  const levelDb = new Float64Array(points);
  let sum = tail;
  let point = points - 1;
  for (let i = kneeIndex - 1; i >= start; i--) {
    sum += Math.max(0, response[i]! ** 2 - noise);
    while (point >= 0 && start + point * step === i) levelDb[point--] = 10 * Math.log10(sum);
  }
  const top = levelDb[0]!;
  return {
    stepS: step / rate,
    levelDb: levelDb.map((v) => v - top),
    rangeDb: noise > 0 ? 10 * Math.log10(Math.max(...blocks) / noise) : Infinity,
    kneeS: (kneeIndex - start) / rate,
  };
}

/** The straight line that a late decay follows, in blocks: level = offsetDb - dropPerBlock * b, down to `at`. */
interface Knee {
  at: number;
  noise: number;
  offsetDb: number;
  dropPerBlock: number;
}

function findKnee(blocks: Float64Array): Knee | null {
  const count = blocks.length;
  const mean = (from: number) => {
    let sum = 0;
    for (let b = from; b < count; b++) sum += blocks[b]!;
    return sum / (count - from);
  };
  const peak = blocks.indexOf(Math.max(...blocks));
  let noise = mean(Math.floor(0.9 * count));
  let found: Knee | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const floorDb = 10 * Math.log10(noise);
    // the part that stands 6 to 26 dB above the noise tells the slope with which the decay goes into it
    const [topDb, bottomDb] = [floorDb + 26, floorDb + 6];
    const list: [number, number][] = [];
    for (let b = peak; b < count; b++) {
      const level = 10 * Math.log10(blocks[b]!);
      if (noise > 0 && level < bottomDb) break;
      list.push([b + 0.5, 10 * Math.log10(blocks[b]! - noise)]); // the noise adds to the decay
    }
    const late = list.filter(([, level]) => !(noise > 0) || level < topDb);
    const line = fitLine(late.length >= 5 ? late : list.slice(-Math.max(5, list.length >> 1)));
    if (!line || !(line.slope < 0)) return found;
    const crossing = noise > 0 ? (floorDb - line.offset) / line.slope : count;
    const at = Math.min(count, Math.max(peak + 1, crossing));
    found = { at, noise, offsetDb: line.offset, dropPerBlock: -line.slope };
    // noise is what lies 8 dB and more beyond the crossing, the last tenth at the least
    const from = Math.min(Math.floor(0.9 * count), Math.ceil(at + 8 / -line.slope));
    noise = at >= 0.97 * count ? 0 : mean(from);
    if (at >= 0.97 * count) {
      // the decay goes on to the end of the response: no noise to take off
      const last = fitLine(list.slice(list.length >> 1));
      if (!last || !(last.slope < 0)) return found;
      return { at: count, noise: 0, offsetDb: last.offset, dropPerBlock: -last.slope };
    }
  }
  const top = 10 * Math.log10(blocks[peak]!);
  return found && top - 10 * Math.log10(found.noise) < 6 ? null : found;
}

/** Least squares through (x, y); null for fewer than two points. */
export function fitLine(points: [number, number][]): { slope: number; offset: number } | null {
  const n = points.length;
  if (n < 2) return null;
  const mx = points.reduce((s, [x]) => s + x, 0) / n;
  const my = points.reduce((s, [, y]) => s + y, 0) / n;
  let [xx, xy] = [0, 0];
  for (const [x, y] of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
  }
  return xx > 0 ? { slope: xy / xx, offset: my - (xy / xx) * mx } : null;
}

/** A figure, or how much range there is and how much it needs. */
export type Found = { found: true; value: number } | { found: false; rangeDb: number; needsDb: number };

/**
 * Reverberation time from a stretch of the decay, extrapolated to 60 dB (ISO 3382-1:2009, 5.3): EDT 0 to -10 dB, T20 -5 to
 * -25, T30 -5 to -35. The noise must lie 10 dB below the stretch.
 */
export function reverberation({ levelDb, stepS, rangeDb }: Decay, stretch: 'EDT' | 'T20' | 'T30'): Found {
  const [top, bottom] = { EDT: [0, -10], T20: [-5, -25], T30: [-5, -35] }[stretch] as [number, number];
  const needsDb = 10 - bottom;
  const points: [number, number][] = [];
  levelDb.forEach((level, i) => {
    if (level <= top && level >= bottom) points.push([i * stepS, level]);
  });
  const reached = levelDb.length > 0 && levelDb[levelDb.length - 1]! <= bottom;
  const line = fitLine(points);
  if (rangeDb < needsDb || !reached || points.length < 3 || !line || !(line.slope < 0))
    return { found: false, rangeDb: Math.min(rangeDb, -(levelDb.at(-1) ?? 0) + 10), needsDb };
  return { found: true, value: -60 / line.slope };
}
