import { describe, expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { interauralCorrelation } from './index.js';

const RATE = 16_000;
const ZERO = 400;
const CENTRES = [250, 500, 1000, 2000];
const noise = (seed: number, from = ZERO, to = ZERO + RATE) => {
  const random = seededRandom(seed);
  const out = new Float64Array(ZERO + RATE + 400);
  for (let i = from; i < to; i++) out[i] = random.normal();
  return out;
};
const mixed = (a: number, x: Float64Array, b: number, y: Float64Array) => x.map((v, i) => a * v + b * y[i]!);
const of = (left: Float64Array, right: Float64Array) =>
  interauralCorrelation(left, right, RATE, ZERO, CENTRES);
const later = (x: Float64Array, by: number) => x.map((_, i) => x[i - by] ?? 0);

describe('the correlation of both ears', () => {
  it('is 1 for the same, inverted, louder, or later by less than a millisecond', () => {
    const same = noise(1);
    for (const right of [same, same.map((v) => -v), same.map((v) => 3 * v), later(same, 10)])
      for (const value of of(same, right).early) expect(value).toBeGreaterThan(0.98);
  });

  it('is the share of energy that both have in common', () => {
    const [common, left, right] = [noise(2), noise(3), noise(4)];
    for (const share of [0.8, 0.5]) {
      const [a, b] = [Math.sqrt(share), Math.sqrt(1 - share)];
      const { all } = of(mixed(a, common, b, left), mixed(a, common, b, right));
      // an octave of 1 s at 500 Hz and above has 350 and more independent samples
      for (const value of all.slice(1)) expect(Math.abs(value - share)).toBeLessThan(0.1);
    }
  });

  it('is small for what has nothing in common, or comes too late to belong together', () => {
    const one = noise(5);
    for (const right of [noise(6), later(one, Math.round(0.005 * RATE))])
      for (const value of of(one, right).late.slice(1)) expect(value).toBeLessThan(0.25);
  });

  it('tells early from late at 80 ms, and nothing where nothing is', () => {
    const edge = ZERO + 0.08 * RATE;
    const early = noise(7, ZERO, edge - 160);
    const quiet = (x: Float64Array) => x.map((v) => v * 0.3);
    const [left, right] = [noise(8, edge + 160), noise(9, edge + 160)].map(quiet) as [
      Float64Array,
      Float64Array,
    ];
    const found = of(mixed(1, early, 1, left), mixed(1, early, 1, right));
    for (const value of found.early) expect(value).toBeGreaterThan(0.95);
    for (const value of found.late.slice(1)) expect(value).toBeLessThan(0.3);
    expect(of(new Float64Array(3000), new Float64Array(3000)).all).toEqual([NaN, NaN, NaN, NaN]);
  });

  it('refuses ears of unlike length and samples that are none', () => {
    expect(() => of(noise(1), noise(1).slice(5))).toThrow(RangeError);
    expect(() => of(Float64Array.of(NaN, 1), Float64Array.of(1, 1))).toThrow(RangeError);
  });
});
