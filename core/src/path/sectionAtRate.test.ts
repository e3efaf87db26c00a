import { describe, expect, it } from 'vitest';
import { biquadTrace, powerOf, type Biquad } from '../signal/index.js';
import { sectionAtRate, sectionBiquad, type Section } from './index.js';

const levelOf = (biquad: Biquad, rate: number, frequency: Float64Array) =>
  powerOf(biquadTrace([biquad], frequency, rate)).map((p) => 10 * Math.log10(p));
/** So wide and so high that what the bilinear transform bends at 48 kHz is no biquad's at another rate: that is told. */
const WIDE: Section = { kind: 'peak', frequency: 12800, gainDb: -6.4, q: 0.4 };
const sections: Section[] = [
  WIDE,
  { kind: 'peak', frequency: 62, gainDb: -11, q: 9 },
  { kind: 'peak', frequency: 1270, gainDb: -6, q: 0.9 },
  { kind: 'peak', frequency: 8400, gainDb: -4.2, q: 0.7 },
  { kind: 'peak', frequency: 14000, gainDb: 5, q: 3 },
  { kind: 'high shelf', frequency: 4500, gainDb: -7.5, q: 0.7 },
  { kind: 'high shelf', frequency: 9000, gainDb: 4, q: 0.7 },
  { kind: 'low shelf', frequency: 120, gainDb: 5, q: 0.7 },
];

describe('a section at another rate', () => {
  it.each([44100, 88200, 96000, 176400, 192000])('has its level as made at 48 kHz, at %i Hz', (rate) => {
    for (const section of sections) {
      const { biquad, deviationDb, toHz } = sectionAtRate(section, 48000, rate);
      expect(toHz).toBeCloseTo(0.4 * Math.min(48000, rate), 6);
      const frequency = Float64Array.from({ length: 400 }, (_, i) => 20 * (toHz / 20) ** (i / 399));
      const made = levelOf(sectionBiquad(section, 48000), 48000, frequency);
      const played = levelOf(biquad, rate, frequency);
      const most = Math.max(...played.map((v, i) => Math.abs(v - made[i]!)));
      // what is said of the deviation is so, and it is small
      expect(Math.abs(most - deviationDb), section.kind).toBeLessThan(0.01);
      if (section !== WIDE) expect(most, `${section.kind} at ${section.frequency} Hz`).toBeLessThan(0.1);
      // stable: poles within the unit circle
      expect(Math.abs(biquad.a2)).toBeLessThan(1);
      expect(Math.abs(biquad.a1)).toBeLessThan(1 + biquad.a2);
    }
  });

  it('is the section itself at the rate that it was made for', () => {
    for (const section of sections)
      expect(sectionAtRate(section, 48000, 48000)).toMatchObject({
        biquad: sectionBiquad(section, 48000),
        deviationDb: 0,
      });
  });

  it('would deviate by more than 2 dB at 16 kHz by the bilinear transform alone', () => {
    const at16k = Float64Array.of(16000);
    const section: Section = { kind: 'peak', frequency: 14000, gainDb: 8, q: 1 };
    const [made] = levelOf(sectionBiquad(section, 48000), 48000, at16k);
    const [bent] = levelOf(sectionBiquad(section, 96000), 96000, at16k);
    expect(Math.abs(made! - bent!)).toBeGreaterThan(0.5);
    expect(sectionAtRate(section, 48000, 96000).deviationDb).toBeLessThan(0.1);
  });
});
