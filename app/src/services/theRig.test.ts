import type { LevelCalibration, Project } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { levelOf, levelOffsetDb, microphoneOf, rigName, rigOf, splOffsetDb } from './theRig';

const loft = netLoftProject();
const calibration: LevelCalibration = {
  takenAt: 1,
  nominalDb: 94,
  readDb: -26.25,
  gainDb: 0,
  rigName: rigName(loft),
  linearity: null,
  driftDb: null,
};
const withLevels = (levels: LevelCalibration[], gainDb = 0, rig: Partial<Project['rig']> = {}): Project => ({
  ...loft,
  rig: { ...loft.rig, ...rig, microphones: [{ ...loft.rig.microphones[0]!, levels, gainDb }] },
});
const device = {
  inputId: 'a',
  inputName: 'Studio box',
  outputId: 'b',
  outputName: 'Studio box',
  rate: 48000,
  inputs: 2,
  outputs: 2,
  releases: false,
};

it('is relative without a calibration, and tied to pascals by the newest', () => {
  expect(splOffsetDb(loft)).toBeNull();
  expect(splOffsetDb(withLevels([calibration]))).toBeCloseTo(120.25, 9);
  const newer = { ...calibration, nominalDb: 114 as const, readDb: -6 };
  expect(splOffsetDb(withLevels([calibration, newer]))).toBe(120);
});

it('asks again when the gain was changed or another interface is used', () => {
  const turned = withLevels([calibration], 12);
  expect(levelOf(turned)!.stale).toBe('The gain was 0 dB then and is 12 dB now: calibrate again.');
  expect(splOffsetDb(turned)).toBeNull();
  const other = withLevels([calibration], 0, { kind: 'web audio', device });
  expect(levelOf(other)!.stale).toMatch(/Burrow 8, simulated: calibrate again for Studio box/);
});

it('names the microphone that measures, and falls back to the first', () => {
  expect(microphoneOf(loft).make).toBe('Siskin M1');
  expect(microphoneOf({ rig: { ...loft.rig, microphoneId: 'gone' } }).make).toBe('Siskin M1');
});

it('says what to do when no devices are chosen', () => {
  expect(() => rigOf({ rig: { ...loft.rig, kind: 'web audio' } })).toThrow(
    /Choose them in Rig, under Connect/,
  );
});

it('makes a microphone of another gain or sensitivity compare with the one that measures', () => {
  const first = loft.rig.microphones[0]!;
  const second = { ...first, id: 'second', input: 3, gainDb: 10 };
  const project = (levels: [LevelCalibration[], LevelCalibration[]]): Project => ({
    ...loft,
    rig: {
      ...loft.rig,
      microphones: [
        { ...first, levels: levels[0] },
        { ...second, levels: levels[1] },
      ],
    },
  });
  const plain = project([[], []]);
  expect(levelOffsetDb(plain, plain.rig.microphones[0]!)).toBe(0);
  // 10 dB more gain read 10 dB too much
  expect(levelOffsetDb(plain, plain.rig.microphones[1]!)).toBe(-10);
  // calibrated: full scale is 120.25 dB here and 107 dB there
  const known = project([[calibration], [{ ...calibration, gainDb: 10, readDb: -13 }]]);
  expect(levelOffsetDb(known, known.rig.microphones[1]!)).toBeCloseTo(107 - 120.25, 9);
});
