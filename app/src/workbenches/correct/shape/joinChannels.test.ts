import { expect, it } from 'vitest';
import { withJoint } from './joinChannels';

const crossover = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };
const found = { highPass: crossover, lowPass: crossover, subDelayS: 0.0025, subInverted: true };
const ids = { mains: ['l', 'r'], subs: ['s'], crossed: ['l'] };
const before = {
  alignment: { s: { trimDb: -3, delayMs: 1, inverted: true }, r: { trimDb: 0, delayMs: 4, inverted: false } },
  crossovers: { r: { highPass: null, lowPass: null } },
};

it('gives the subwoofers what they wait, on top of what they have, and turns them back where they were turned', () => {
  const next = withJoint(before, found, ids);
  expect(next.alignment).toEqual({ ...before.alignment, s: { trimDb: -3, delayMs: 3.5, inverted: false } });
  expect(next.crossovers).toEqual({
    ...before.crossovers,
    l: { highPass: crossover, lowPass: crossover },
  });
});

it('lets all full-range channels wait where the subwoofers cannot come earlier', () => {
  const next = withJoint(
    before,
    { ...found, subDelayS: -0.002, subInverted: false },
    { ...ids, crossed: [] },
  );
  expect(next.alignment).toEqual({
    s: before.alignment.s,
    l: { trimDb: 0, delayMs: 2, inverted: false },
    r: { trimDb: 0, delayMs: 6, inverted: false },
  });
  expect(next.crossovers).toEqual(before.crossovers);
});
