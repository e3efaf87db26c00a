import { expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { spreadOf } from './spread.js';

const noise = (length: number, alike: number) => {
  const random = seededRandom(9);
  let before = 0;
  return Float64Array.from(
    { length },
    () => (before = alike * before + Math.sqrt(1 - alike ** 2) * random.normal()),
  );
};

it('noise that differs from point to point is counted once', () => {
  expect(Math.abs(spreadOf(noise(4000, 0), 0) - 1)).toBeLessThan(0.15);
});

it('noise whose neighbours agree by r is wider by (1 + r) / (1 - r)', () => {
  expect(Math.abs(spreadOf(noise(20_000, 0.8), 0) / 9 - 1)).toBeLessThan(0.2);
});

it('what a fit has used up is taken off, and nothing is left of nothing', () => {
  const r = noise(100, 0);
  expect(spreadOf(r, 50) / spreadOf(r, 0)).toBeCloseTo(2, 10);
  expect(spreadOf(new Float64Array(20), 3)).toBe(0);
  expect(spreadOf(r, 100)).toBe(0);
});
