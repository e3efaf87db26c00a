import { expect, it } from 'vitest';
import { playedSpan, plainOutput } from './index.js';

const rate = 48000;
const span = { from: 40, to: 15000 };
const crossover = (order: number, frequency: number) => ({
  kind: 'Linkwitz-Riley' as const,
  order,
  frequency,
});

it('is the whole span without crossovers, or with those of a large loudspeaker', () => {
  expect(playedSpan(span, plainOutput(), rate)).toEqual(span);
  expect(playedSpan(span, { ...plainOutput(), highPass: crossover(4, 80), size: 'large' }, rate)).toEqual(
    span,
  );
});

it('ends where a crossover takes 12 dB: a fourth-order Linkwitz-Riley is 20 lg (1 + r^4) down at r of its corner', () => {
  const r = (10 ** (12 / 20) - 1) ** (1 / 4);
  const high = playedSpan(span, { ...plainOutput(), size: 'small', highPass: crossover(4, 80) }, rate);
  expect(high.from / (80 / r)).toBeGreaterThan(0.99);
  expect(high.from / (80 / r)).toBeLessThan(1.02);
  expect(high.to).toBe(span.to);
  const low = playedSpan({ from: 20, to: 400 }, { ...plainOutput(), lowPass: crossover(4, 110) }, rate);
  expect(low.from).toBe(20);
  expect(low.to / (110 * r)).toBeGreaterThan(0.98);
  expect(low.to / (110 * r)).toBeLessThan(1.01);
});

it('stays where crossovers leave nothing of it', () => {
  const narrow = { from: 20, to: 30 };
  expect(playedSpan(narrow, { ...plainOutput(), size: 'small', highPass: crossover(8, 250) }, rate)).toEqual(
    narrow,
  );
});
