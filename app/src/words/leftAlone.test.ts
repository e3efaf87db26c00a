import type { LeftAlone } from '@pebble-hall/core/correct';
import { describe, expect, it } from 'vitest';
import { readLeftAlone } from './leftAlone';

const dip: LeftAlone = {
  from: 48,
  to: 57,
  at: 52,
  offDb: -11.2,
  gainDb: 0.2,
  wantedDb: 11.2,
  reason: 'moves',
  standardDeviationDb: 5.13,
  nonMinimumPhase: 0,
};
const words = (change: Partial<LeftAlone>) => readLeftAlone({ ...dip, ...change }, 6, 15);

describe('what was left alone, in words', () => {
  it('tells a dip that moves, by how much the spots deviate, and whom filling it would hurt', () => {
    const { text, small } = words({});
    expect(text).toBe('Dip at 52 Hz, −11.2 dB, differs from spot to spot: left alone.');
    expect(small).toBe('spots deviate by 5.1 dB; filling it would hurt other seats');
  });

  it('says what was done all the same, where it was half a dB or more', () => {
    expect(words({ gainDb: 0.49 }).text).toMatch(/: left alone\.$/);
    expect(words({ gainDb: 1.26 }).text).toMatch(/: boosted by 1\.3 dB only\.$/);
  });

  it('tells at how many spots a dip is not of minimum phase', () => {
    const { text, small } = words({ reason: 'not minimum phase', nonMinimumPhase: 2 / 3 });
    expect(text).toContain('is not of minimum phase');
    expect(small).toMatch(/^at 67 % of the spots/);
  });

  it('holds a dip that is too deep against the boost limit, and a peak against the cut limit', () => {
    expect(words({ reason: 'too deep' }).small).toBe('filling it takes +11.2 dB, at most +6.0 dB is allowed');
    // within the limit, but held back all the same: never said to be beyond it
    expect(words({ reason: 'too deep', offDb: -5.2, wantedDb: 5, gainDb: 3.1 }).small).toMatch(
      /^filling it takes \+5\.0 dB; deep dips are filled in part only/,
    );
    const peak = words({ reason: 'cut limit', offDb: 18.4, gainDb: -15 });
    expect(peak.text).toBe('Peak at 52 Hz, +18.4 dB: cut by 15.0 dB only.');
    expect(peak.small).toBe('at most −15.0 dB is allowed');
  });
});
