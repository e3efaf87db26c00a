import { describe, expect, it } from 'vitest';
import { FormatError, packFiles, readNpy, unpackFiles, writeNpy } from '../formats/index.js';
import { rayGroupOf, raysOfGroup, ROWS_PER_RECEIVER, type RoomRun } from '../runs/index.js';
import { sceneOf, traceRays } from '../tracing/index.js';
import {
  changedSince,
  checkProject,
  MAINS_LAYOUT,
  newProject,
  readProjectFile,
  runFaces,
  writeProjectFile,
  type Project,
} from './index.js';

const empty = newProject('p1', {
  name: 'Saltmarsh Boathouse',
  kind: 'hall',
  size: { x: 12, y: 8, z: 4 },
  layoutId: MAINS_LAYOUT.id,
  rig: 'simulated',
});
const { temperatureC, relativeHumidityPercent } = empty.place;

const run: RoomRun = {
  id: 'run-1',
  name: 'As it is',
  madeAt: 1,
  faces: runFaces(empty.place),
  volume: 384,
  air: { temperatureC, relativeHumidityPercent },
  sources: [
    {
      id: 't',
      name: 'Talker',
      kind: 'talker',
      position: { x: 2, y: 4, z: 1.6 },
      azimuthDeg: 0,
      elevationDeg: 0,
      voice: 'raised',
    },
  ],
  receivers: [
    { id: 'a', name: 'Seat 1', position: { x: 6, y: 3, z: 1.2 }, azimuthDeg: 180 },
    { id: 'b', name: 'Seat 2', position: { x: 9, y: 5, z: 1.2 }, azimuthDeg: 180 },
  ],
  mirrored: 2,
  lengthS: 0.1,
  raysPerGroup: 100,
  groups: 4,
  seed: 7,
  noiseLevelsDb: null,
  tracedBy: 'browser',
  isHeld: false,
};
const project: Project = { ...empty, roomRuns: [run] };

const group = traceRays(sceneOf(run.faces), {
  source: { position: run.sources[0]!.position, emission: null },
  receivers: run.receivers.map(({ position }) => ({ position, lateral: { x: 0, y: 1, z: 0 } })),
  rays: 100,
  lengthS: 0.1,
  mirrored: 2,
  speed: 343,
  seed: 7,
  group: 2,
});
const row = raysOfGroup(
  {
    runId: run.id,
    source: 0,
    group: 2,
    emission: new Float32Array(37 * 72 * 8).fill(1),
    powerDb: [-Infinity, 60, 61, 62, 63, 64, 65, 66],
    delayS: 0.003,
  },
  group,
);

it('a group of rays is kept as it is, to 32 bits', () => {
  const again = rayGroupOf(row);
  expect(again.bins).toBe(100);
  expect(Array.from(again.energy)).toEqual(Array.from(group.energy, Math.fround));
  expect(Array.from(again.lateral)).toEqual(Array.from(group.lateral, Math.fround));
  expect(Array.from(again.counts)).toEqual(Array.from(group.counts));
  expect(Array.from(again.absorbed)).toEqual(Array.from(group.absorbed));
  expect(row.data).toHaveLength(ROWS_PER_RECEIVER * 2 * 100);
});

describe('in a project file', () => {
  const bytes = writeProjectFile(project, [], [], [row]);

  it('a run comes back with its rays', () => {
    const { project: again, rays } = readProjectFile(bytes);
    expect(again.roomRuns).toEqual([run]);
    expect(rays).toEqual([row]);
  });

  it('rays are arrays that any program for numbers reads', () => {
    const files = unpackFiles(bytes, { files: 100, bytes: 1e8 });
    const { shape, values } = readNpy(files['runs/run-1/source-1-group-3.npy']!);
    expect(shape).toEqual([34, 100]);
    // the third octave of the second receiver
    expect(values[(8 + 2) * 100 + 40]).toBe(Math.fround(group.energy[(8 + 2) * 100 + 40]!));
  });

  it('what is damaged, or of another run, is refused', () => {
    const spoilt = (change: (files: Record<string, Uint8Array>) => void) => {
      const files = { ...unpackFiles(bytes, { files: 100, bytes: 1e8 }) };
      change(files);
      return packFiles(files);
    };
    const name = 'runs/run-1/source-1-group-3.npy';
    const manifest = (change: (told: Record<string, unknown>) => void) =>
      spoilt((files) => {
        const json = JSON.parse(new TextDecoder().decode(files['project.json'])) as {
          rays: Record<string, unknown>[];
        };
        change(json.rays[0]!);
        files['project.json'] = new TextEncoder().encode(JSON.stringify(json));
      });
    for (const broken of [
      spoilt((files) => delete files[name]),
      spoilt((files) => (files[name] = files[name]!.slice(0, -4))),
      spoilt((files) => (files[name] = writeNpy({ shape: [34, 100], values: new Float32Array(3400) }))),
      manifest((told) => (told['runId'] = 'another')),
      manifest((told) => (told['source'] = 3)),
      manifest((told) => (told['group'] = -1)),
      manifest((told) => (told['rays'] = 1e9)),
      manifest((told) => (told['sent'] = [1])),
      manifest((told) => (told['leakAt'] = { x: 'here' })),
      manifest((told) => (told['delayS'] = null)),
    ])
      expect(() => readProjectFile(broken)).toThrow(FormatError);
  });
});

describe('at the door of a project', () => {
  it.each([
    ['no receiver', { receivers: [] }],
    ['two receivers of one id', { receivers: [run.receivers[0]!, run.receivers[0]!] }],
    ['no volume', { volume: 0 }],
    ['shares beyond 1', { faces: run.faces.map((f) => ({ ...f, absorption: f.absorption.map(() => 2) })) }],
    ['too few groups', { groups: 1 }],
    ['rays without an end', { raysPerGroup: 1e9 }],
    ['no number', { lengthS: NaN }],
    [
      'more than could be kept',
      {
        lengthS: 20,
        receivers: Array.from({ length: 500 }, (_, i) => ({ ...run.receivers[0]!, id: `r${i}` })),
      },
    ],
  ])('%s is refused', (_, change) => {
    expect(checkProject({ ...project, roomRuns: [{ ...run, ...change }] })).toHaveProperty('problem');
  });
  it('a run as it is made is not', () => expect(checkProject(project)).toEqual({ project }));
});

describe('what changed since', () => {
  const { place } = project;
  it('is nothing at first', () => expect(changedSince(run, place)).toBeNull());
  it('is told by the names of surfaces', () => {
    const shape = {
      ...place.shape,
      floor: { ...place.shape.floor, absorption: place.shape.floor.absorption.map(() => 0.5) },
    };
    expect(changedSince(run, { ...place, shape })).toEqual({
      surfaces: [place.shape.floor.name],
      air: false,
    });
  });
  it('is the air, or the shape', () => {
    expect(changedSince(run, { ...place, temperatureC: temperatureC + 1 })).toEqual({
      surfaces: [],
      air: true,
    });
    const shape = { ...place.shape, outline: place.shape.outline.map((c) => ({ ...c, x: 1.1 * c.x })) };
    expect(changedSince(run, { ...place, shape })).toMatchObject({ surfaces: null });
  });
});
