import { expect, it } from 'vitest';
import { heardInTurn, inNoticeable, sureFigures } from './index.js';
import { ARRIVALS, groupsOf, REQUEST } from './roomForBars.js';

it('four times the rays halve the errors', () => {
  const mean = (rays: number) => {
    let [sum, count] = [0, 0];
    for (let seed = 1; seed <= 4; seed++) {
      const { errors } = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(seed, 8, rays), 0));
      for (const { d50, g } of errors)
        for (const e of [20 * d50, g]) {
          sum += e ** 2;
          count++;
        }
    }
    return Math.sqrt(sum / count);
  };
  const ratio = mean(300) / mean(1200);
  expect(ratio).toBeGreaterThan(1.5);
  expect(ratio).toBeLessThan(2.7);
});

it('an error in just-noticeable differences: of times by their share', () => {
  expect(inNoticeable('t30', 0.05, 2)).toBeCloseTo(0.5, 12);
  expect(inNoticeable('c80', 0.5, -3)).toBe(0.5);
  expect(inNoticeable('sti', 0.03, 0.6)).toBeCloseTo(1, 12);
});

it('refuses too few groups', () => {
  expect(() => sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(1, 3, 50), 0))).toThrow(/groups.*3/);
});
