import { expect, it } from 'vitest';
import { biquadTrace, logGrid } from '../signal/index.js';
import { allPassAsSection, allPassTurn, sectionAtRate, sectionBiquad } from './index.js';

const RATE = 48_000;
const grid = logGrid(20, 1000, 12);

it('a processor turns the phase as the circuit does, and leaves the level alone', () => {
  for (const circuit of [
    { hz: 71, q: 0.7 },
    { hz: 200, q: 3 },
    { hz: 40, q: null },
    { hz: 500, q: null },
  ]) {
    const section = allPassAsSection(circuit);
    const { re, im } = biquadTrace([sectionBiquad(section, RATE)], grid, RATE);
    grid.forEach((f, n) => {
      expect(Math.hypot(re[n]!, im[n]!)).toBeCloseTo(1, 9);
      const turns = (Math.atan2(im[n]!, re[n]!) - allPassTurn(circuit, f)) / (2 * Math.PI);
      // bilinear: the further below half the rate, the nearer
      expect(Math.abs(turns - Math.round(turns)) * 360).toBeLessThan(0.5);
    });
  }
});

it('at another rate it stands at the same frequency', () => {
  const section = allPassAsSection({ hz: 90, q: 1.2 });
  const { biquad, deviationDb } = sectionAtRate(section, RATE, 96_000);
  expect(deviationDb).toBe(0);
  const { re, im } = biquadTrace([biquad], Float64Array.of(90), 96_000);
  expect(Math.abs(Math.atan2(im[0]!, re[0]!))).toBeCloseTo(Math.PI, 6);
});
