import { readCalibrationText } from '@pebble-hall/core/formats';
import { firstVariant, PROJECT_VERSION, writeProjectFile, type Project } from '@pebble-hall/core/project';
import {
  NET_LOFT,
  NET_LOFT_LOUDSPEAKERS,
  NET_LOFT_SISKIN,
  siskinCalibrationText,
} from '@pebble-hall/stand-ins/net-loft';

/** The Saltmarsh Boathouse on the Net Loft, before anything was measured. All of it is made up. */
export function netLoftProject(): Project {
  const { x, y, z } = NET_LOFT.size;
  const calibration = readCalibrationText(siskinCalibrationText(NET_LOFT_SISKIN));
  const calibrationId = `siskin-m1-${NET_LOFT_SISKIN}`;
  const ear = 1.14;
  return {
    version: PROJECT_VERSION,
    id: 'saltmarsh-boathouse-net-loft',
    name: 'Saltmarsh Boathouse',
    place: {
      name: 'the Net Loft',
      size: { x, y, z },
      temperatureC: NET_LOFT.air.temperatureC,
      seats: [
        { id: 'sofa-left', name: 'Sofa, left', position: { x: 3.6, y: 1.2, z: ear } },
        { id: 'sofa-middle', name: 'Sofa, middle', position: { x: 3.6, y: 1.72, z: ear } },
        { id: 'sofa-right', name: 'Sofa, right', position: { x: 3.6, y: 2.25, z: ear } },
        { id: 'chair-door', name: 'Chair by the door', position: { x: 2.7, y: 3.3, z: ear } },
        { id: 'chair-window', name: 'Chair by the window', position: { x: 2.7, y: 0.65, z: ear } },
      ],
      furniture: [
        { kind: 'rug', x: 1.5, y: 0.75, width: 1.75, depth: 2.2 },
        { kind: 'sofa', x: 3.3, y: 0.84, width: 0.9, depth: 1.8 },
        { kind: 'chair', x: 2.4, y: 3.02, width: 0.6, depth: 0.6 },
        { kind: 'chair', x: 2.4, y: 0.35, width: 0.6, depth: 0.6 },
        { kind: 'window', x: 1.8, y: 0, width: 1.3, depth: 0 },
      ],
      loudspeakers: NET_LOFT_LOUDSPEAKERS.map(({ id, name, role, output, model, position, aimDeg }) => ({
        id,
        name,
        model: model.name,
        role,
        output,
        position: { ...position },
        aimDeg,
        fitted: true,
      })),
      spots: [
        {
          id: 'home',
          name: 'Home spot',
          position: { x: 3.6, y: 1.72, z: ear },
          inAverage: true,
          weight: 1,
          surface: 'ear',
        },
        {
          id: 'spot-2',
          name: 'Spot 2',
          position: { x: 3.6, y: 1.2, z: ear },
          inAverage: true,
          weight: 1,
          surface: 'ear',
        },
        {
          id: 'spot-3',
          name: 'Spot 3',
          position: { x: 3.6, y: 2.25, z: ear },
          inAverage: true,
          weight: 1,
          surface: 'ear',
        },
        {
          id: 'spot-4',
          name: 'Spot 4',
          position: { x: 3.45, y: 1.46, z: 1.18 },
          inAverage: false,
          weight: 1,
          surface: 'ear',
        },
      ],
    },
    calibrations: {
      [calibrationId]: {
        id: calibrationId,
        name: `Siskin M1 ${NET_LOFT_SISKIN}, at the source`,
        serial: calibration.serial,
        frequency: calibration.frequency,
        levelDb: calibration.levelDb,
        incidenceDeg: calibration.incidenceDeg,
        sensitivityDb: calibration.sensitivityDb,
      },
    },
    rig: {
      kind: 'simulated',
      pace: 'quick',
      device: null,
      microphones: [
        {
          id: 'siskin',
          make: 'Siskin M1',
          serial: String(NET_LOFT_SISKIN),
          pointing: 'at the source',
          input: 1,
          gainDb: 0,
          calibrationIds: [calibrationId],
          calibrationId,
          levels: [],
        },
      ],
      microphoneId: 'siskin',
      alongIds: [],
      pairs: [],
      repeats: 1,
      referenceFrom: 'centre',
      loopbackInput: 2,
      timing: 'loopback',
      clickFrom: null,
      roundTrip: null,
      distances: [],
      heardTraces: {},
      processorBefore: null,
      levelDbfs: -48,
      sweepS: 3,
      noise: null,
      checks: {},
    },
    rounds: [{ id: 'round-1', name: 'First round', startedAt: 0, note: '' }],
    roundId: 'round-1',
    families: null,
    sweeps: [],
    variants: [firstVariant()],
    variantId: 'variant-1',
    loads: [],
    pendingLoad: null,
    trials: [],
    chains: [],
    headphones: [],
    chainId: null,
  };
}

/** The demo project as a project file, and the calibration file that came with the microphone. */
export function demoFiles(): Record<string, Uint8Array> {
  return {
    'saltmarsh-boathouse.pebble.zip': writeProjectFile(netLoftProject(), []),
    'siskin-m1-4417.txt': new TextEncoder().encode(siskinCalibrationText(NET_LOFT_SISKIN)),
  };
}
