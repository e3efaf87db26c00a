import { expect, it } from 'vitest';
import { plainOutput } from '../processing/index.js';
import { FormatError, packFiles, unpackFiles } from '../formats/index.js';
import {
  arraysOf,
  withArrayIds,
  checkProject,
  firstVariant,
  newLive,
  newReading,
  newStep,
  plainSetting,
  nothingPublished,
  newPlace,
  NO_LAYOUT,
  plainLoudspeaker,
  plainSweepLook,
  plainView,
  PROJECT_VERSION,
  enclosedIds,
  readProjectFile,
  withFileIds,
  type Underlay,
  writeProjectFile,
  type Project,
  type ProjectArray,
} from './index.js';

const EIGHT = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8] as const;
const project: Project = {
  version: PROJECT_VERSION,
  id: 'p1',
  name: 'Saltmarsh Boathouse',
  processor: { adapter: 'stand-in', unit: 'house' },
  place: {
    ...newPlace({
      name: 'the Net Loft',
      kind: 'listening room',
      size: { x: 5.6, y: 4.1, z: 2.6 },
      layoutId: NO_LAYOUT.id,
    }),
    loudspeakers: [
      plainLoudspeaker({
        id: 'left',
        name: 'Left',
        model: 'Dunlin 6',
        role: 'full range',
        output: 1,
        position: { x: 1, y: 1, z: 1 },
      }),
    ],
    spots: [
      {
        id: 'home',
        name: 'Home spot',
        position: { x: 3, y: 2, z: 1.2 },
        inAverage: true,
        weight: 1,
        surface: 'ear',
      },
    ],
    head: { name: 'A ball', arrayId: 'h1', directions: 1 },
    surfaceVariants: [
      {
        id: 'v1',
        name: 'Bare',
        mesh: null,
        surfaces: [{ absorption: EIGHT, scattering: EIGHT, material: null }],
      },
    ],
  },
  calibrations: {},
  rig: {
    kind: 'simulated',
    pace: 'quick',
    device: null,
    microphones: [
      {
        id: 'm1',
        make: 'Siskin M1',
        serial: '4417',
        pointing: 'upright',
        input: 1,
        gainDb: 12,
        calibrationIds: [],
        calibrationId: null,
        levels: [
          {
            takenAt: 1,
            nominalDb: 94,
            readDb: -26,
            gainDb: 12,
            rigName: 'Burrow 8',
            linearity: null,
            driftDb: null,
          },
        ],
      },
    ],
    microphoneId: 'm1',
    alongIds: [],
    pairs: [],
    repeats: 1,
    referenceFrom: null,
    loopbackInput: 2,
    timing: 'loopback',
    clickFrom: null,
    roundTrip: {
      takenAt: 1,
      rigName: 'Burrow 8',
      output: 8,
      input: 2,
      latencyS: 0.012,
      traceId: 'r1',
      divideOut: true,
    },
    distances: [{ a: 'left', b: 'home', typedM: 2.5, heardM: null, adjustedM: null }],
    heardTraces: { left: { left: 't1' } },
    processorBefore: null,
    levelDbfs: -20,
    sweepS: 3,
    noise: null,
    checks: {},
  },
  rounds: [{ id: 'r1', name: 'First round', startedAt: 1, note: '' }],
  roundId: 'r1',
  families: null,
  sweeps: [
    {
      id: 's1',
      stage: 'as found',
      polarity: { reversed: false, certainty: 3.5, arrivalS: 0.012 },
      noise: [],
      roundId: 'r1',
      spotId: 'home',
      loudspeakerId: 'left',
      traceId: 't1',
      takenAt: 1,
      levelDbfs: -20,
      microphoneId: 'm1',
      calibrationId: null,
      memory: { letter: 'A', name: 'House', checksum: 7, hasFilters: false },
      verdict: {
        state: 'failed',
        reasons: [{ kind: 'silent', snrDb: -Infinity }],
        snrDb: -Infinity,
        band: null,
      },
      margins: [{ centre: 1000, noiseDb: -80, signalDb: -Infinity, snrDb: -Infinity }],
      arrivalS: null,
      distortionDb: -Infinity,
      inAverage: true,
      note: '',
      conditions: null,
      decayEnd: null,
      levelOffsetDb: 0,
      repeats: 1,
      harmonicsId: null,
      referenceId: null,
      floor: null,
      groundPlane: false,
    },
  ],
  variants: [firstVariant()],
  variantId: 'variant-1',
  loads: [
    {
      id: 'l1',
      letter: 'B',
      name: 'x',
      loadedAt: 2,
      checksum: 3,
      filters: { left: 'f1' },
      spans: {},
      outputs: [{ ...plainOutput(), sections: [{ kind: 'peak', frequency: 50, gainDb: -3, q: 2 }] }],
      before: [plainOutput()],
      designKey: 'k',
      variantId: 'variant-1',
      variantName: 'First variant',
      verdict: null,
    },
  ],
  pendingLoad: null,
  trials: [
    {
      id: 'trial-1',
      kind: 'preference',
      startedAt: 5,
      spotName: 'Home spot',
      material: 'speech',
      candidates: [
        { source: 'as-found', name: 'as found' },
        { source: 'variant-1', name: 'First variant' },
      ],
      answers: [1, 0, 1],
      matched: true,
    },
  ],
  chains: [],
  headphones: [],
  chainId: null,
  live: newLive([{ id: 'left', output: 1 }], 2),
  kept: [
    {
      id: 'k1',
      kind: 'transfer function',
      name: 'A boost',
      keptAt: 0,
      note: '',
      folder: '',
      tags: [],
      arrayId: null,
      origin: {
        by: 'computed',
        formula: {
          op: 'shapes',
          of: [],
          shapes: [
            { kind: 'peaking', hz: 1000, gainDb: 6, q: 1.4 },
            { kind: 'low-pass', hz: 9000, family: 'Linkwitz-Riley', order: 4 },
          ],
        },
      },
      view: {
        ...plainView(),
        window: { beforeS: 0.001, afterS: 0.02 },
        calibrationId: 'm1',
        shapes: [{ kind: 'high shelf', hz: 5000, gainDb: -2, order: 1, q: null }],
      },
    },
    {
      id: 'k2',
      kind: 'transfer function',
      name: 'Both, measured at Home spot',
      keptAt: 0,
      note: '',
      folder: '',
      tags: [],
      arrayId: 'r1',
      origin: {
        by: 'together',
        parts: ['l1', 'l2'].map((id) => ({ loudspeakerId: id, name: id, as: plainSetting() })),
        spotId: 'home',
        spotName: 'Home spot',
        position: { x: 1, y: 2, z: 1.2 },
        levelDbfs: -20,
        microphoneId: 'm1',
        calibration: null,
        memory: { letter: 'A', name: 'House', checksum: 12, hasFilters: false },
        rigName: 'Simulated rig',
        temperatureC: 20,
      },
      view: plainView(),
    },
  ],
  libraryViews: [
    {
      id: 'view-1',
      name: 'Bass against the shelf',
      look: {
        plots: ['Difference', 'Phase'],
        smoothing: 24,
        fades: true,
        fromHz: 20,
        toHz: 300,
        againstId: 'k1',
        target: { traceId: 'k1', toleranceDb: 3 },
        marked: { from: 60, to: 120 },
        shownIds: ['s1'],
      },
      keptIds: ['k1'],
    },
  ],
  roomRuns: [],
  sweepLooks: { s1: { ...plainSweepLook(), gainDb: -3, window: { beforeS: 0.001, afterS: 0.02 } } },
  alignSteps: [
    {
      ...newStep('step-1', 'Mains with subwoofer', [
        {
          ...plainSetting(),
          id: 'main',
          name: 'Main',
          of: { kind: 'traces', traceIds: ['k1', 's1'], shownId: 's1' },
        },
        {
          id: 'sub',
          name: 'Sub',
          ...plainSetting(),
          of: { kind: 'distance', referenceId: 'reference-eider-10', distanceM: 4, count: 2 },
          lowPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 90 },
          gainDb: -2.5,
          delayS: -0.003,
          inverted: true,
          allPasses: [
            { hz: 71, q: 0.8 },
            { hz: 40, q: null },
          ],
        },
      ]),
      target: { traceId: 'k1', toleranceDb: 3 },
      kept: [{ id: 'kept-1', name: 'First', settings: { main: plainSetting() } }],
      restedOn: { 'step-2': { fill: { ...plainSetting(), delayS: 0.001 } } },
    },
    {
      ...newStep('step-3', 'Before a microphone is up', [
        {
          ...plainSetting(),
          id: 'mains',
          name: 'Mains',
          of: { kind: 'channels', loudspeakerIds: ['l1', 'l2'], from: 'models' },
        },
        { ...plainSetting(), id: 'group', name: 'Group', of: { kind: 'step', stepId: 'step-1' } },
      ]),
      aim: 'place',
      alignAt: { position: { x: 3, y: 2, z: 1.2 }, reason: 'equally loud' },
    },
    newStep('step-2', 'With fills', [
      { ...plainSetting(), id: 'group', name: 'Group', of: { kind: 'step', stepId: 'step-1' } },
      {
        ...plainSetting(),
        id: 'fill',
        name: 'Fill',
        of: { kind: 'channels', loudspeakerIds: ['l1'], from: 'sweeps' },
      },
    ]),
  ],
  readings: [
    {
      ...newReading('r1', 'What it does', 'k1'),
      wanted: [{ kind: 'peaking' }, { kind: 'low-pass', family: null, order: null }],
      published: [{ hz: 1000, gainDb: 6, q: null, order: null }, nothingPublished()],
    },
  ],
};
const arrays: ProjectArray[] = [
  { id: 't1', kind: 'trace', rate: 48000, zero: 2, samples: Float32Array.of(0, 0.1, 1, -0.5) },
  { id: 'r1', kind: 'trace', rate: 48000, zero: 1, samples: Float32Array.of(0, 1, 0) },
  { id: 'h1', kind: 'trace', rate: 48000, zero: 0, samples: Float32Array.of(1, 0, 0, -2e-4, 3e-4) },
  { id: 'f1', kind: 'filter', rate: 48000, zero: 0, samples: Float32Array.of(1, 0.25) },
];
const file = writeProjectFile(project, arrays);
const changed = (change: (manifest: Record<string, unknown>) => void) => {
  const files = unpackFiles(file, { files: 10, bytes: 1e6 });
  const manifest = JSON.parse(new TextDecoder().decode(files['project.json'])) as Record<string, unknown>;
  change(manifest);
  return packFiles({ ...files, 'project.json': new TextEncoder().encode(JSON.stringify(manifest)) });
};

function damaged() {
  const files = unpackFiles(file, { files: 10, bytes: 1e6 });
  const wav = Uint8Array.from(files['traces/t1.wav']!);
  wav[wav.length - 1]! ^= 1;
  return packFiles({ ...files, 'traces/t1.wav': wav });
}

it('comes back whole, levels of nothing included', () => {
  const back = readProjectFile(file);
  expect(back.project).toEqual(project);
  const byId = (a: ProjectArray, b: ProjectArray) => a.id.localeCompare(b.id);
  expect(back.arrays.sort(byId)).toEqual([...arrays].sort(byId));
  expect([...arraysOf(project)].sort()).toEqual(['f1', 'h1', 'r1', 't1']);
  const other = withArrayIds(project, (id) => `${id}-copy`);
  expect([...arraysOf(other)].sort()).toEqual(['f1-copy', 'h1-copy', 'r1-copy', 't1-copy']);
  expect(withArrayIds(other, (id) => id.replace('-copy', ''))).toEqual(project);
});

it.each<[string, Uint8Array, RegExp]>([
  ['a newer version', changed((m) => (m.version = 99)), /newer Pebble Hall \(version 99/],
  ['another format', changed((m) => (m.format = 'letters')), /not a Pebble Hall project/],
  [
    'a broken project',
    changed((m) => delete (m.project as Record<string, unknown>).place),
    /"place" is required/,
  ],
  ['a lost array', changed((m) => (m.arrays = [])), /lacks the sound data of t1/],
  ['a zero outside', changed((m) => ((m.arrays as { zero: number }[])[0]!.zero = 99)), /outside its samples/],
  ['a cut-off file', file.subarray(0, file.length / 2), /damaged or cut off/],
  ['a damaged sound', damaged(), /sound data of t1 in the file are damaged/],
  ['a zip of something else', packFiles({ 'a.txt': Uint8Array.of(1) }), /no project.json/],
])('refuses %s with its reason', (_, bytes, reason) => {
  expect(() => readProjectFile(bytes)).toThrow(FormatError);
  expect(() => readProjectFile(bytes)).toThrow(reason);
});

it('carries the drawings that lie under the plan, as they came', () => {
  const plan: Underlay = {
    id: 'u1',
    name: 'Plan',
    fileId: 'd1',
    isShown: true,
    at: { x: 2, y: 1, z: 0 },
    turnDeg: 90,
    kind: 'picture',
    widthPx: 400,
    heightPx: 300,
    metresPerPixel: 0.01,
    opacity: 0.5,
  };
  const { id: _id, ...laid } = { id: '', name: 'Hall', isShown: true, at: { x: 0, y: 0, z: 0 }, turnDeg: 0 };
  const model: Underlay = { ...laid, id: 'u2', fileId: 'd2', kind: 'model', up: 'z', unitM: 0.0254 };
  const drawn = { ...project, place: { ...project.place, underlays: [plan, model] } };
  const enclosed = [
    { id: 'd1', name: 'plan.PNG', type: 'image/png', bytes: Uint8Array.of(1, 2, 3) },
    { id: 'd2', name: 'hall.dxf', type: '', bytes: Uint8Array.of(4, 5) },
  ];
  const bytes = writeProjectFile(drawn, arrays, enclosed);
  expect(Object.keys(unpackFiles(bytes, { files: 10, bytes: 1e6 }))).toEqual(
    expect.arrayContaining(['drawings/d1.png', 'drawings/d2.dxf']),
  );
  const back = readProjectFile(bytes);
  expect(back.project).toEqual(drawn);
  expect(back.enclosed).toEqual(enclosed);
  expect([...enclosedIds(withFileIds(drawn, (id) => `${id}-copy`))]).toEqual(['d1-copy', 'd2-copy']);
  expect(() => writeProjectFile(drawn, arrays)).toThrow(/file d1 is missing/);
});

it('does not write a project whose data are missing', () => {
  expect(() => writeProjectFile(project, [])).toThrow(/array t1 is missing/);
});

it('refuses a microphone that measures but is not there, and files that are not', () => {
  expect(checkProject({ ...project, rig: { ...project.rig, microphoneId: 'other' } })).toMatchObject({
    problem: expect.stringMatching(/microphone other/),
  });
  const microphones = [{ ...project.rig.microphones[0]!, calibrationIds: ['gone'] }];
  expect(checkProject({ ...project, rig: { ...project.rig, microphones } })).toMatchObject({
    problem: expect.stringMatching(/calibration gone/),
  });
});

it('finds references that lead nowhere and ids that are paths', () => {
  const sweep = { ...project.sweeps[0]!, spotId: 'nowhere' };
  expect(checkProject({ ...project, sweeps: [sweep] })).toMatchObject({
    problem: expect.stringMatching(/s1 belongs to a spot/),
  });
  const path = { ...project.sweeps[0]!, traceId: '../../etc' };
  expect(checkProject({ ...project, sweeps: [path] })).toMatchObject({
    problem: expect.stringMatching(/traceId/),
  });
});

it('refuses a place that cannot be: a wall too few, sizes of a slipped hand, numbers that are none', () => {
  const { place } = project;
  const { shape } = place;
  const withShape = (change: object) =>
    checkProject({ ...project, place: { ...place, shape: { ...shape, ...change } } });
  expect(withShape({ walls: shape.walls.slice(1) })).toMatchObject({
    problem: expect.stringMatching(/4 corners and 3 walls/),
  });
  for (const heightM of [1e9, 0, -1, NaN, Infinity]) expect(withShape({ heightM })).toHaveProperty('problem');
  expect(withShape({ outline: [...shape.outline.slice(1), { x: 1e9, y: 0 }] })).toHaveProperty('problem');
  expect(withShape({ floor: { name: 'Floor', absorption: [0.1] } })).toHaveProperty('problem');
  const [left] = place.loudspeakers;
  const twice = { ...project, place: { ...place, loudspeakers: [left, left] } };
  expect(checkProject(twice)).toMatchObject({ problem: expect.stringMatching(/same id|duplicate/) });
});
