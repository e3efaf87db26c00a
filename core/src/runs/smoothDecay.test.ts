import { expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { energyFigures } from '../tracing/index.js';
import { smoothDecay } from './smoothDecay.js';

const bins = 1500;
const decay = (time: number, level = 1) =>
  Float64Array.from({ length: bins }, (_, b) => level * Math.exp((-13.8155 * (b + 0.5) * 0.001) / time));
const nothing = new Float64Array(bins);
const t30 = (row: Float64Array) => energyFigures(row, nothing).t30;

it('leaves a smooth decay what it is, also one that bends', () => {
  const one = decay(1.2);
  expect(t30(smoothDecay(one)) / t30(one)).toBeCloseTo(1, 1);
  const slow = decay(1.6, 0.02);
  const bent = decay(0.5).map((e, b) => e + slow[b]!);
  const smooth = smoothDecay(bent);
  for (const b of [10, 60, 150, 300, 450])
    expect(Math.abs(10 * Math.log10(smooth[b]! / bent[b]!)), `${b} ms`).toBeLessThan(1.5);
});

it('takes the lumps of few rays out and keeps energy and time', () => {
  const random = seededRandom(4);
  const even = decay(0.9);
  // one bin in ten is hit, and hit hard
  const lumpy = even.map((e) => (random.uniform() < 0.1 ? 10 * e * -Math.log(1 - random.uniform()) : 0));
  const smooth = smoothDecay(lumpy);
  const sum = (of: Float64Array) => of.reduce((a, b) => a + b, 0);
  expect(sum(smooth) / sum(lumpy)).toBeGreaterThan(0.9);
  expect(sum(smooth) / sum(lumpy)).toBeLessThan(1.1);
  expect(t30(smooth) / 0.9).toBeGreaterThan(0.9);
  expect(t30(smooth) / 0.9).toBeLessThan(1.1);
  for (let b = 150; b < bins - 100; b++) expect(smooth[b + 50]!).toBeLessThan(smooth[b]!);
});

it('nothing stays nothing', () => {
  expect(smoothDecay(nothing)).toEqual(nothing);
  expect(smoothDecay(new Float64Array(20))).toEqual(new Float64Array(20));
});
