import { expect, it } from 'vitest';
import { compareAlone, levelDifference, type HeardAlone } from './compareAlone';

const check = (levels: Record<number, number>, options: Partial<HeardAlone> = {}): HeardAlone => ({
  role: 'subwoofer',
  takenAt: 1,
  levelDbfs: -40,
  verdict: { state: 'good', reasons: [], snrDb: 40, band: { from: 31.5, to: 100 } },
  margins: Object.entries(levels).map(([centre, signalDb]) => ({
    centre: Number(centre),
    noiseDb: -90,
    signalDb,
    snrDb: signalDb + 90,
  })),
  arrivalS: 0.01,
  reversed: false,
  certainty: 2,
  distortionDb: -50,
  delayS: 0,
  traceId: null,
  ...options,
});
const flat = check({ 25: -70, 40: -50, 63: -50, 100: -50, 160: -70 });

it('compares only the bands that both play, level for level', () => {
  const louder = check({ 25: -90, 40: -46, 63: -46, 100: -46, 160: -20 });
  expect(levelDifference(louder, flat)).toBeCloseTo(4, 9);
  expect(levelDifference({ ...louder, levelDbfs: -36 }, flat)).toBeCloseTo(0, 9);
  expect(levelDifference(louder, { ...flat, verdict: { ...flat.verdict, band: null } })).toBeNull();
});

it('says who is louder and what to do, and when they match', () => {
  const louder = check({ 40: -46, 63: -46, 100: -46 });
  expect(compareAlone('Sub 1', flat, 'Sub 2', louder)).toBe(
    'Sub 2 is 4.0 dB louder than Sub 1: turn it down by 4.0 dB and hear it again.',
  );
  expect(compareAlone('Sub 1', flat, 'Sub 2', check({ 40: -49.8, 63: -49.8, 100: -49.8 }))).toBe(
    'Matched within 0.2 dB.',
  );
});

it('names opposite polarity and another time', () => {
  const other = check({ 40: -50, 63: -50, 100: -50 }, { reversed: true, arrivalS: 0.014 });
  const sentence = compareAlone('Sub 1', flat, 'Sub 2', other);
  expect(sentence).toContain('polarities are opposite');
  expect(sentence).toContain('Sub 2 arrives 4.0 ms later');
});
