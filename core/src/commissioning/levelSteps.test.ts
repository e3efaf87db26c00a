import { expect, it } from 'vitest';
import { levelSteps } from './levelSteps.js';

it('needs no step within 12 dB, or downwards', () => {
  expect(levelSteps(-40, -28)).toEqual([]);
  expect(levelSteps(-40, -60)).toEqual([]);
  expect(levelSteps(null, -60)).toEqual([]);
});

it('climbs in equal steps of at most 12 dB', () => {
  expect(levelSteps(-48, -12)).toEqual([-36, -24]);
  expect(levelSteps(-48, -23)).toEqual([-48 + 25 / 3, -48 + 50 / 3]);
  const first = levelSteps(null, -10);
  [-72, ...first, -10].reduce((a, b) => (expect(b - a).toBeLessThanOrEqual(12 + 1e-9), b));
  expect(first[0]).toBeLessThanOrEqual(-60);
});

it('refuses a level that is none', () => {
  expect(() => levelSteps(null, NaN)).toThrow(/finite/);
});
