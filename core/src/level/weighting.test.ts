import { describe, expect, it } from 'vitest';
import { magnitudeAt, weightingDb, weightingSections } from './weighting.js';

/** IEC 61672-1:2013, table 3: nominal frequency, A, C, class 1 limits up and down (dB). */
const TABLE: [number, number, number, number, number][] = [
  [10, -70.4, -14.3, 3.0, Infinity],
  [16, -56.7, -8.5, 2.0, 4.0],
  [20, -50.5, -6.2, 2.0, 2.0],
  [31.5, -39.4, -3.0, 1.5, 1.5],
  [63, -26.2, -0.8, 1.0, 1.0],
  [125, -16.1, -0.2, 1.0, 1.0],
  [250, -8.6, 0.0, 1.0, 1.0],
  [500, -3.2, 0.0, 1.0, 1.0],
  [1000, 0, 0, 0.7, 0.7],
  [2000, 1.2, -0.2, 1.0, 1.0],
  [4000, 1.0, -0.8, 1.0, 1.0],
  [8000, -1.1, -3.0, 1.5, 2.5],
  [10000, -2.5, -4.4, 2.0, 3.0],
  [12500, -4.3, -6.2, 2.0, 5.0],
  [16000, -6.6, -8.5, 2.5, 16.0],
  [20000, -9.3, -11.2, 3.0, Infinity],
];
/** the table rounds exact base-10 frequencies to nominal ones */
const exact = (nominal: number) => 1000 * 10 ** (Math.round(10 * Math.log10(nominal / 1000)) / 10);

it('states the design goals of the standard to a tenth of a dB', () => {
  for (const [f, a, c] of TABLE) {
    expect(weightingDb('A', exact(f)), `A at ${f}`).toBeCloseTo(a, 0.9);
    expect(Math.abs(weightingDb('A', exact(f)) - a)).toBeLessThan(0.06);
    expect(Math.abs(weightingDb('C', exact(f)) - c)).toBeLessThan(0.06);
    expect(weightingDb('Z', f)).toBe(0);
  }
});

describe.each([44100, 48000, 88200, 96000, 192000])('sections at %i Hz', (rate) => {
  it.each(['A', 'C'] as const)('%s keeps to half of the class 1 limits', (weighting) => {
    const sections = weightingSections(weighting, rate);
    for (const [f, , , up, down] of TABLE) {
      const error = 20 * Math.log10(magnitudeAt(sections, exact(f), rate)) - weightingDb(weighting, exact(f));
      expect(error, `${f} Hz`).toBeLessThan(up / 2);
      expect(error, `${f} Hz`).toBeGreaterThan(-Math.min(down, 9) / 2);
    }
  });
});

it('refuses a rate at which the weighting cannot be made', () => {
  expect(() => weightingSections('A', 16000)).toThrow(/32000/);
});
