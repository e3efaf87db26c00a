import type { Calibration, Microphone } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { anglesFit, calibrationAdvice, largestDifference } from './calibrationAdvice';

const file = (
  id: string,
  incidenceDeg: number | null,
  high: number,
  serial: string | null = '4417',
): Calibration => ({
  id,
  name: `${id}.txt`,
  serial,
  frequency: [20, 1000, 10000, 20000],
  levelDb: [0, 0, high, high],
  incidenceDeg,
  sensitivityDb: null,
});
const microphone = (
  calibrationId: string | null,
  pointing: Microphone['pointing'] = 'at the source',
): Microphone => ({
  id: 'm',
  make: 'Siskin M1',
  serial: '4417',
  pointing,
  input: 1,
  gainDb: 0,
  calibrationIds: ['a', 'b'],
  calibrationId,
  levels: [],
});
const [on, side] = [file('a', 0, 3), file('b', 90, -1.5)];

it('takes the file for the angle that the microphone points', () => {
  expect(calibrationAdvice(microphone('a'), [on, side])).toBeNull();
  expect(calibrationAdvice(microphone('b', 'upright'), [on, side])).toBeNull();
  expect(calibrationAdvice(microphone('a', 'on the floor'), [on, side])).toBeNull();
  expect(anglesFit(file('c', 15, 0), 'at the source')).toBe(true);
});

it('flags a file for another angle, with the error it makes and the file that fits', () => {
  const advice = calibrationAdvice(microphone('a', 'upright'), [on, side]);
  expect(advice).toMatch(/is for 0°, but the microphone points upright \(90°\): wrong by up to 4\.5 dB/);
  expect(advice).toContain('Use b.txt');
  expect(largestDifference(on, side).levelDb).toBeCloseTo(4.5, 9);
  expect(calibrationAdvice(microphone('a', 'upright'), [on])).toMatch(/load the file for its angle/);
});

it('speaks of a missing file, another serial, an unstated angle', () => {
  expect(calibrationAdvice(microphone(null), [on])).toMatch(/No file is in use.*a\.txt fits/);
  expect(calibrationAdvice(microphone('a'), [file('a', 0, 3, '9999')])).toMatch(/serial 9999/);
  expect(calibrationAdvice(microphone('a'), [file('a', null, 3)])).toMatch(/does not say/);
});
