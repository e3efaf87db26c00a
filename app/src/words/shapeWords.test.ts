import { expect, it } from 'vitest';
import { shapeSentence, wantedName } from './shapeWords';

it.each([
  [
    { kind: 'peaking', hz: 1234, gainDb: -6.04, q: Math.SQRT2 },
    /6\.0 dB at 1\.23 kHz, Q 1\.41 \(1 octaves\)/,
  ],
  [
    { kind: 'low shelf', hz: 80, gainDb: 15, order: 1, q: null },
    /low shelf of \+15\.0 dB at 80 Hz, first order/,
  ],
  [{ kind: 'high-pass', hz: 80, family: 'Bessel', order: 3 }, /Bessel high-pass of third order at 80 Hz/],
  [{ kind: 'all-pass', hz: 200, order: 2, q: 0.7 }, /all-pass of second order at 200 Hz, Q 0\.7/],
] as const)('%j is told', (shape, told) => {
  expect(shapeSentence(shape)).toMatch(told);
});

it('what is looked for is told, with what is left open', () => {
  expect(wantedName({ kind: 'high shelf', order: null, undershoots: true })).toBe(
    'High shelf, any order, may undershoot',
  );
  expect(wantedName({ kind: 'low-pass', family: null, order: 4 })).toBe('Low-pass, any family, fourth order');
});
