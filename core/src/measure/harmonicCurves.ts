import { dbOfPower, logGrid, smoothPower, type ImpulseResponse, type Sweep } from '../signal/index.js';
import type { HarmonicResponse } from './harmonics.js';
import { powerOnGrid } from './spectrumOnGrid.js';

/** Harmonics against the frequency that was played, on a 1/6-octave grid, dB re the fundamental at that frequency. */
export interface HarmonicCurves {
  frequency: number[];
  /** each curve ends where its harmonic leaves the sweep's band, so it may be shorter than `frequency` */
  orders: { order: number; levelDb: number[]; noiseDb: number[] }[];
}

/** Nothing lies lower than this in a measurement in air; it stands for nothing at all, too. */
const FLOOR_DB = -140;

/**
 * Harmonic distortion of orders 2 to 5 against the frequency played: |H_k(k f)| over |H_1(f)| (Farina 2000), each
 * averaged over 1/6 octave, and what noise alone would give over the same time.
 * @param split from `splitHarmonics`
 * @param impulse the linear response
 */
export function harmonicCurves(
  split: HarmonicResponse[],
  sweep: Sweep,
  impulse: ImpulseResponse,
): HarmonicCurves {
  const grid = logGrid(Math.max(20, sweep.from), Math.min(20000, sweep.to), 6);
  const fundamental = powerOnGrid(impulse, grid, 6);
  const orders = split.map(({ order, frequency, power, noise }) => {
    const played = grid.filter((f) => order * f <= sweep.to);
    const at = played.map((f) => order * f);
    const over = (p: Float64Array) =>
      Array.from(smoothPower(frequency, p, 6, at), (v, i) => rounded(dbOfPower(v / fundamental[i]!)));
    return { order, levelDb: over(power), noiseDb: over(noise) };
  });
  return { frequency: Array.from(grid, (f) => Math.round(f * 100) / 100), orders };
}

const rounded = (db: number) =>
  Number.isFinite(db) ? Math.max(FLOOR_DB, Math.round(db * 10) / 10) : FLOOR_DB;

/** Stands for a harmonic that has left the band, where curves lie in one array. */
const LEFT_DB = -200;

/** Curves as one array, to be stored beside the samples: for each order its levels, then its noise, all equally long. */
export function packHarmonics({ frequency, orders }: HarmonicCurves): Float32Array {
  const out = new Float32Array(2 * orders.length * frequency.length).fill(LEFT_DB);
  orders.forEach(({ levelDb, noiseDb }, i) => {
    out.set(levelDb, 2 * i * frequency.length);
    out.set(noiseDb, (2 * i + 1) * frequency.length);
  });
  return out;
}

/** What `packHarmonics` packed, of a sweep from 20 Hz to 20 kHz; null for what is no such array. */
export function unpackHarmonics(packed: Float32Array): HarmonicCurves | null {
  const grid = logGrid(20, 20000, 6);
  if (packed.length === 0 || packed.length % (2 * grid.length) !== 0) return null;
  const curve = (k: number) => {
    const all = Array.from(packed.subarray(k * grid.length, (k + 1) * grid.length));
    const left = all.indexOf(LEFT_DB);
    return left < 0 ? all : all.slice(0, left);
  };
  return {
    frequency: Array.from(grid),
    orders: Array.from({ length: packed.length / (2 * grid.length) }, (_, i) => ({
      order: i + 2,
      levelDb: curve(2 * i),
      noiseDb: curve(2 * i + 1),
    })),
  };
}
