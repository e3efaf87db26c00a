import { LAYOUTS } from '@pebble-hall/core/layouts';
import { newProject, type Project } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import {
  DEVICE_IDS,
  deviceGenerator,
  calibrationOf,
  deskSettings,
  livePairs,
  signalOf,
  standOf,
  withMeasurement,
  withTimeReference,
} from './liveSettings';

const plain = newProject('p', {
  name: 'the Net Loft',
  kind: 'listening room',
  size: { x: 5, y: 4, z: 2.6 },
  layoutId: LAYOUTS[1]!.id,
  rig: 'simulated',
});
const [first] = plain.live.measurements;
const [microphone] = plain.rig.microphones;
const project: Project = {
  ...plain,
  calibrations: {
    file: {
      id: 'file',
      name: 'Siskin',
      serial: null,
      frequency: [100, 10_000],
      levelDb: [0, 4],
      incidenceDeg: 0,
      sensitivityDb: null,
    },
  },
  rig: { ...plain.rig, microphones: [{ ...microphone!, calibrationIds: ['file'], calibrationId: 'file' }] },
  live: {
    ...plain.live,
    measurements: [first!, { ...first!, id: 'line', input: 3, delayS: 0.02, isTracked: true }],
  },
};

it('each measurement is corrected by the file of the microphone on its input, by another, or by none', () => {
  const [one, two] = project.live.measurements;
  expect(calibrationOf(project, one!)!.id).toBe('file');
  expect(calibrationOf(project, two!)).toBeNull();
  expect(calibrationOf(project, { ...two!, calibration: { by: 'file', id: 'file' } })!.id).toBe('file');
  expect(calibrationOf(project, { ...one!, calibration: { by: 'nothing' } })).toBeNull();
  const [a, b] = deskSettings(project, 48_000, false).measurements;
  // 4 dB over two decades: 2 dB at 1 kHz
  const at = a!.correctionDb!.findIndex((v) => Math.abs(v - 2) < 0.02);
  expect(at).toBeGreaterThan(0);
  expect(b!.correctionDb).toBeNull();
});

it('spectra are made only while somebody looks', () => {
  expect(deskSettings(project, 48_000, false).spectrum).toBeNull();
  expect(deskSettings(project, 48_000, true).spectrum).toMatchObject({ bands: 3, weighting: 'Z' });
});

it('the time reference gives its delay to all, and goes on giving it', () => {
  const zeroed = withTimeReference(project.live, 'line');
  expect(zeroed.measurements.map((m) => m.delayS)).toEqual([0.02, 0.02]);
  expect(withMeasurement(zeroed, 'line', { delayS: 0.03 }).measurements.map((m) => m.delayS)).toEqual([
    0.03, 0.03,
  ]);
  expect(withMeasurement(zeroed, first!.id, { delayS: 0.01 }).measurements.map((m) => m.delayS)).toEqual([
    0.01, 0.02,
  ]);
  expect(withTimeReference(zeroed, null).measurements.map((m) => m.delayS)).toEqual([0.02, 0.02]);
});

it('microphones stand where they were put, else at the spots', () => {
  expect(standOf(project, microphone!.id)).toEqual(project.place.spots[0]!.position);
  const put = { x: 1, y: 1, z: 1 };
  const moved = { ...project, live: { ...project.live, stands: { [microphone!.id]: put } } };
  expect(standOf(moved, microphone!.id)).toEqual(put);
});

it('a file is played once one was chosen', () => {
  const generator = { ...project.live.generator, signal: { kind: 'file' as const } };
  expect(signalOf(generator, null)).toBeNull();
  expect(signalOf(generator, { samples: Float32Array.of(1) })).toMatchObject({ kind: 'file' });
  expect(signalOf(project.live.generator, null)).toMatchObject({ kind: 'pink' });
});

it('an average asked of two measurements waits for the second where one was removed', () => {
  const live = { ...project.live, average: 'power' as const };
  const one = { ...live, measurements: live.measurements.slice(0, 1) };
  expect(deskSettings({ ...project, live: one }, 48_000, false).average).toBe('none');
  const two = { ...live, measurements: [...one.measurements, { ...one.measurements[0]!, id: 'second' }] };
  expect(deskSettings({ ...project, live: two }, 48_000, false).average).toBe('power');
});

it('a device on the bench is two channels against the loopback, with one delay and no file', () => {
  const live = {
    ...project.live,
    average: 'power' as const,
    electronics: { ...project.live.electronics, inputs: [3, 4], delayS: 0.002, levelDbfs: -18 },
  };
  const asked = deskSettings({ ...project, live }, 48_000, false, 'device');
  expect(asked.measurements.map((m) => [m.id, m.input, m.reference, m.delayS])).toEqual([
    [DEVICE_IDS[0], 3, project.rig.loopbackInput, 0.002],
    [DEVICE_IDS[1], 4, project.rig.loopbackInput, 0.002],
  ]);
  expect(asked.measurements.every((m) => m.correctionDb === null)).toBe(true);
  // averages over places are nothing for channels
  expect(asked.average).toBe('none');
  expect(deviceGenerator({ live })).toMatchObject({ levelDbfs: -18, loudspeakerIds: [] });
});

it('where the loopback itself comes back from the device, the generator is the reference', () => {
  const { loopbackInput } = project.rig;
  const live = { ...project.live, electronics: { ...project.live.electronics, inputs: [loopbackInput!] } };
  const [only] = deskSettings({ ...project, live }, 48_000, false, 'device').measurements;
  expect(only!.reference).toBe('generator');
});

it('a microphone on the floor lies below that of its ear, and both make one curve where both are measured', () => {
  const floor = { ...microphone!, id: 'floor', input: 4 };
  const rig = {
    ...project.rig,
    microphones: [...project.rig.microphones, floor],
    pairs: [{ earId: microphone!.id, floorId: 'floor', crossoverHz: 250 }],
  };
  const put = { x: 1, y: 2, z: 1.2 };
  const stands = { [microphone!.id]: put };
  const paired = { ...project, rig, live: { ...project.live, stands } };
  expect(standOf(paired, 'floor')).toEqual({ x: 1, y: 2, z: 0.01 });
  expect(livePairs(paired)).toEqual([]);
  const measured = (reference: number) => ({
    ...paired,
    live: {
      ...paired.live,
      measurements: [first!, { ...first!, id: 'below', input: 4, reference }],
    },
  });
  const both = measured(first!.reference as number);
  expect(livePairs(both)).toEqual([
    {
      id: `pair-${first!.id}`,
      name: 'Microphone, floor and ear',
      earId: first!.id,
      floorId: 'below',
      crossoverHz: 250,
    },
  ]);
  expect(deskSettings(both, 48_000, false).pairs).toHaveLength(1);
  expect(deskSettings(both, 48_000, false, 'device').pairs).toEqual([]);
  // against another reference they have no time in common
  expect(livePairs(measured(7))).toEqual([]);
});
