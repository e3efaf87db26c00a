import { expect, it } from 'vitest';
import {
  bandLevelDb,
  curveOfImpulse,
  LIBRARY_GRID,
  spectrumOnGrid,
  windowedCurve,
  withoutMicrophone,
  workOut,
  type LibraryCurve,
} from './index.js';

const flat = (gain: number): LibraryCurve => ({
  frequency: LIBRARY_GRID,
  re: LIBRARY_GRID.map(() => gain),
  im: LIBRARY_GRID.map(() => 0),
  coherence: LIBRARY_GRID.map(() => NaN),
  hasPhase: true,
});
const levels = ({ re, im }: LibraryCurve) => re.map((v, n) => 20 * Math.log10(Math.hypot(v, im[n]!)));
const rate = 48_000;

/** A direct sound 3 ms after time zero, and half of it again 15 ms later. */
function echoed(): LibraryCurve {
  const samples = new Float64Array(8192);
  samples[100 + 144] = 1;
  samples[100 + 144 + 720] = 0.5;
  return curveOfImpulse({ samples, rate, zero: 100 });
}

it('through a window that ends ahead of a reflection, the direct sound alone is left', () => {
  // above, the reflection turns faster than the points of the library lie
  const ripple = (curve: LibraryCurve) => {
    const seen = levels(curve).filter((_, n) => LIBRARY_GRID[n]! > 300 && LIBRARY_GRID[n]! < 2500);
    return Math.max(...seen) - Math.min(...seen);
  };
  const curve = echoed();
  // 20 log 1.5 / 0.5, less what a 48th of an octave smooths
  expect(ripple(curve)).toBeGreaterThan(8.5);
  const direct = windowedCurve(curve, { beforeS: 0.002, afterS: 0.008 });
  expect(ripple(direct)).toBeLessThan(0.25);
  // its time stays: the phase turns by 3 ms of delay
  const n = LIBRARY_GRID.findIndex((f) => f > 1000);
  const turns = LIBRARY_GRID[n]! * 0.003 + Math.atan2(direct.im[n]!, direct.re[n]!) / (2 * Math.PI);
  expect(Math.abs(turns - Math.round(turns))).toBeLessThan(0.005);
  expect(workOut({ op: 'window', curve, window: { beforeS: 0.002, afterS: 0.008 } })).toEqual(direct);
});

it('what is not known stays unknown behind a window, and what has no phase has none', () => {
  const curve = echoed();
  const gap = { ...curve, re: curve.re.map((v, n) => (n < 30 ? NaN : v)) };
  const seen = windowedCurve(gap, { beforeS: 0.002, afterS: 0.008 });
  expect([seen.re[29], Number.isFinite(seen.re[30]!)]).toEqual([NaN, true]);
  expect(() => windowedCurve({ ...curve, hasPhase: false }, { beforeS: 0.002, afterS: 0.008 })).toThrow(
    /phase/,
  );
  expect(() => windowedCurve(curve, { beforeS: 0.002, afterS: NaN })).toThrow(/time behind/);
});

it('without what a microphone adds, by its level', () => {
  const seen = withoutMicrophone(flat(2), { frequency: [20, 1000, 20_000], levelDb: [-20, 0, 6] });
  const first = 20 * (1 - Math.log(LIBRARY_GRID[0]! / 20) / Math.log(50));
  const level = levels(seen);
  expect(level[0]).toBeCloseTo(20 * Math.log10(2) + first, 9);
  expect(level.at(-1)).toBeCloseTo(20 * Math.log10(2) - 6, 1);
});

it('the level of a band is its mean power over log frequency', () => {
  const step: LibraryCurve = { ...flat(1), re: LIBRARY_GRID.map((f) => (f < 100 ? 1 : 3)) };
  expect(bandLevelDb(flat(2), { from: 50, to: 200 })).toBeCloseTo(20 * Math.log10(2), 9);
  // an octave of 1 and an octave of 9
  expect(bandLevelDb(step, { from: 50, to: 200 })).toBeCloseTo(10 * Math.log10(5), 1);
  expect(bandLevelDb(flat(1), { from: 30_000, to: 40_000 })).toBeNaN();
});

it('a spectrum in thirds stands as steps, and ends where its bands end', () => {
  const centres = Float64Array.from({ length: 10 }, (_, k) => 100 * 2 ** (k / 3));
  const at = Float64Array.of(50, 100, 110, 114, 800, 899, 2000);
  const seen = spectrumOnGrid(
    centres,
    centres.map((_, k) => k),
    at,
  );
  expect([...seen]).toEqual([NaN, 0, 0, 1, 9, 9, NaN]);
  expect(() => spectrumOnGrid(centres, new Float64Array(3), at)).toThrow(/3 levels/);
});
