import { expect, it } from 'vitest';
import { heardInTurn, inNoticeable, sureFigures } from './index.js';
import { ARRIVALS, groupsOf, REQUEST } from './roomForBars.js';

it('an error in just-noticeable differences: of times by their share', () => {
  expect(inNoticeable('t30', 0.05, 2)).toBeCloseTo(0.5, 12);
  expect(inNoticeable('c80', 0.5, -3)).toBe(0.5);
  expect(inNoticeable('sti', 0.03, 0.6)).toBeCloseTo(1, 12);
});

it('refuses too few groups', () => {
  expect(() => sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(1, 3, 50), 0))).toThrow(/groups.*3/);
});
