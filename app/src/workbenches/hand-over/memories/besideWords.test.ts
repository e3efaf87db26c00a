import { plainOutput, settingChanges } from '@pebble-hall/core/processing';
import { expect, it } from 'vitest';
import { besideLines, besideSummary } from './besideWords';

const nameOf = (output: number) => ['Left', 'Right', 'Sub 1'][output - 1]!;
const highPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };
const small = { ...plainOutput(), trimDb: -3, size: 'small' as const, highPass };
const found = [plainOutput(), plainOutput(), plainOutput()];

it('puts together what changed alike, and tells every setting of every channel', () => {
  const beside = settingChanges([small, small, { ...plainOutput(), trimDb: -6 }], found);
  expect(besideSummary(beside, nameOf)).toBe(
    'trim of Left, Right and Sub 1; size, high-pass of Left and Right',
  );
  expect(besideLines(beside, nameOf)).toEqual([
    'Left: trim 0.0 dB instead of -3.0 dB, size large instead of small, high-pass none instead of Linkwitz-Riley 24 dB/octave at 80 Hz',
    'Right: trim 0.0 dB instead of -3.0 dB, size large instead of small, high-pass none instead of Linkwitz-Riley 24 dB/octave at 80 Hz',
    'Sub 1: trim 0.0 dB instead of -6.0 dB',
  ]);
});

it('names a single setting of a single channel plainly', () => {
  const beside = settingChanges([{ ...plainOutput(), delayMs: 2 }], found.slice(0, 1));
  expect(besideSummary(beside, nameOf)).toBe('delay of Left');
});
