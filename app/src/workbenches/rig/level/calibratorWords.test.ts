import { expect, it } from 'vitest';
import { calibratorSentence, driftSentence, linearitySentence } from './calibratorWords';

it('says that the other level is linear, rounded up so that it is never better than measured', () => {
  expect(linearitySentence({ linearity: { nominalDb: 114, offDb: -0.07 } })).toBe(
    '114 reads 113.9: linear within 0.1 dB.',
  );
  expect(linearitySentence({ linearity: { nominalDb: 94, offDb: 0.13 } })).toBe(
    '94 reads 94.1: linear within 0.2 dB.',
  );
  expect(linearitySentence({ linearity: { nominalDb: 114, offDb: -2.4 } })).toMatch(
    /^114 reads 111\.6: the input is not linear/,
  );
  expect(linearitySentence({ linearity: null })).toBeNull();
});

it('tells drift from a touched gain', () => {
  expect(driftSentence({ driftDb: -0.12 })).toBe('0.12 dB from the calibration before.');
  expect(driftSentence({ driftDb: 6 })).toMatch(/Was a gain touched/);
  expect(driftSentence({ driftDb: null })).toBeNull();
});

it('gives the reason of every refusal and what to do', () => {
  const refused = (
    problem: Extract<Parameters<typeof calibratorSentence>[0], { state: 'refused' }>['problem'],
  ) => calibratorSentence({ state: 'refused', problem });
  expect(refused({ kind: 'wrong frequency', frequency: 250 })).toMatch(/at 250 Hz, not at 1 kHz/);
  expect(refused({ kind: 'unsteady', rangeDb: 0.6 })).toMatch(/swings by 0\.6 dB: press/);
  expect(refused({ kind: 'noise', belowDb: 9, low: true })).toMatch(/hand on the microphone/);
  expect(refused({ kind: 'noise', belowDb: 9, low: false })).toMatch(/9 dB below/);
  expect(refused({ kind: 'clipped' })).toMatch(/gain down/);
  expect(calibratorSentence({ state: 'settling', levelDb: -26, frequency: 1000, heldS: 1.5 })).toMatch(
    /1\.5 of 3 s/,
  );
});
