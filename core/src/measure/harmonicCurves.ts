import { dbOfPower, logGrid, smoothPower, type ImpulseResponse, type Sweep } from '../signal/index.js';
import { splitHarmonics } from './harmonics.js';
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
 * @param circular from `impulseFrom`, time zero at index 0
 * @param impulse the linear response
 */
export function harmonicCurves(
  circular: Float64Array,
  sweep: Sweep,
  impulse: ImpulseResponse,
): HarmonicCurves {
  const grid = logGrid(Math.max(20, sweep.from), Math.min(20000, sweep.to), 6);
  const fundamental = powerOnGrid(impulse, grid, 6);
  const orders = splitHarmonics(circular, sweep).map(({ order, frequency, power, noise }) => {
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
