import { findDecay, fitLine } from '../acoustics/index.js';
import {
  binFrequencies,
  fftSizeFor,
  inverseRealFft,
  median,
  realFft,
  smoothLevels,
  type ImpulseResponse,
} from '../signal/index.js';

/** A resonance that rings in the lows. */
export interface Resonance {
  frequency: number;
  /** mean over the spots that have it, over the response smoothed by an octave, dB */
  overDb: number;
  /** median over those spots, seconds for 60 dB; null where the noise hides it */
  decayS: number | null;
  /** spots that have it, of all */
  count: number;
  of: number;
}

/** Peaks this much over an octave's smoothing count, and belong together when this near (in octaves). */
const OVER_DB = 3;
const NEAR_OCTAVES = 1 / 12;

/**
 * Low-frequency resonances: peaks of the level (1/24 octave) over its surroundings, gathered over the spots, each with the
 * decay time found in a narrow band around it.
 * @param spots impulse response and level on the log grid `frequency` (dB, unsmoothed), for each spot
 * @returns the strongest first
 */
export function findResonances(
  frequency: Float64Array,
  spots: { impulse: ImpulseResponse; levelDb: Float64Array }[],
  { fromHz, toHz }: { fromHz: number; toHz: number },
): Resonance[] {
  const peaks = spots.flatMap(({ levelDb }, spot) => {
    const fine = smoothLevels(frequency, levelDb, 24);
    const wide = smoothLevels(frequency, levelDb, 1);
    return [...frequency].flatMap((f, i) => {
      const over = fine[i]! - wide[i]!;
      const isPeak = fine[i]! >= (fine[i - 1] ?? Infinity) && fine[i]! > (fine[i + 1] ?? Infinity);
      return f >= fromHz && f <= toHz && isPeak && over > OVER_DB ? [{ spot, f, over }] : [];
    });
  });
  const found: Resonance[] = [];
  let rest = peaks.sort((a, b) => b.over - a.over);
  while (rest.length > 0) {
    const top = rest[0]!;
    const near = rest.filter(({ f }) => Math.abs(Math.log2(f / top.f)) <= NEAR_OCTAVES);
    const best = new Map<number, (typeof near)[number]>();
    for (const peak of near) if (!best.has(peak.spot)) best.set(peak.spot, peak);
    const members = [...best.values()];
    const decays = members.flatMap(({ spot }) => ringingS(spots[spot]!.impulse, top.f) ?? []);
    found.push({
      frequency: Math.exp(members.reduce((s, m) => s + Math.log(m.f), 0) / members.length),
      overDb: members.reduce((s, m) => s + m.over, 0) / members.length,
      decayS: decays.length > 0 ? median(decays) : null,
      count: members.length,
      of: spots.length,
    });
    rest = rest.filter((p) => !near.includes(p));
  }
  return found.sort((a, b) => b.count * b.overDb - a.count * a.overDb);
}

/** Decay time of one frequency in a narrow Gaussian band, for 60 dB; null when less than 15 dB of decay can be seen. */
export function ringingS({ samples, rate, zero }: ImpulseResponse, frequency: number): number | null {
  const size = fftSizeFor(2 * samples.length);
  const { re, im } = realFft(samples, size);
  const sigma = Math.max(2, 0.04 * frequency);
  const gain = binFrequencies(size, rate).map((f) => Math.exp(-0.5 * ((f - frequency) / sigma) ** 2));
  const band = inverseRealFft({ re: re.map((v, k) => v * gain[k]!), im: im.map((v, k) => v * gain[k]!) });
  const decay = findDecay(band, rate, { start: zero, end: samples.length, slowestHz: frequency });
  if (!decay) return null;
  const points: [number, number][] = [];
  decay.levelDb.forEach((level, i) => {
    if (level <= -5 && level >= -20) points.push([i * decay.stepS, level]);
  });
  const line = fitLine(points);
  return decay.rangeDb >= 25 && points.length >= 3 && line && line.slope < 0 ? -60 / line.slope : null;
}
