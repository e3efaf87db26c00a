import { describe, expect, it } from 'vitest';
import { ACCURACIES, suggestRun, timesTheRays, type Accuracy } from './index.js';

const loft = { meanFreePathM: 2.5, timeS: 0.4, faces: 6 };
const hall = { meanFreePathM: 7.6, timeS: 1.7, faces: 7 };
const rays = (room: typeof loft, accuracy: Accuracy) => {
  const { raysPerGroup, groups } = suggestRun(room, accuracy);
  return raysPerGroup * groups;
};

describe('what a run needs', () => {
  it('is more where sound goes further, and four times as much for half the error', () => {
    expect(rays(hall, 'usual')).toBeGreaterThan(5 * rays(loft, 'usual'));
    const ratio = rays(hall, 'fine') / rays(hall, 'usual');
    expect(ratio).toBeGreaterThan(3);
    expect(ratio).toBeLessThan(5);
    for (const accuracy of Object.keys(ACCURACIES) as Accuracy[])
      expect(rays(loft, accuracy)).toBeGreaterThanOrEqual(1000);
  });
  it('lasts longer than the decay, so that T30 can be read from it', () => {
    expect(suggestRun(hall, 'usual').lengthS).toBeCloseTo(2.3, 9);
    expect(suggestRun({ ...hall, timeS: 100 }, 'usual').lengthS).toBe(20);
  });
  it('refuses a room without one', () => {
    expect(() => suggestRun({ ...loft, meanFreePathM: NaN }, 'usual')).toThrow(/mean free path/);
    expect(() => suggestRun({ ...loft, timeS: Infinity }, 'usual')).toThrow(/reverberation/);
  });
});

it('errors fall with the root of the rays', () => {
  expect(timesTheRays(0.4)).toBe(1);
  expect(timesTheRays(2)).toBe(4);
  expect(timesTheRays(1.1)).toBe(2);
});
