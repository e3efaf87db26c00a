import { SECTORS, STRETCHES_S } from '@pebble-hall/core/tracing';
import { boxWalls } from '@pebble-hall/core/place';
import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { netLoftProject } from '../../../demo/netLoftProject';
import {
  checkProject,
  PROJECT_VERSION,
  runFaces,
  writeProjectFile,
  type Project,
  type Underlay,
} from '@pebble-hall/core/project';
import type { RoomRun, RunRays } from '@pebble-hall/core/runs';
import { beforeEach, describe, expect, it } from 'vitest';
import { readWav } from '@pebble-hall/core/formats';
import Dexie from 'dexie';
import { unzipSync } from 'fflate';
import { DATABASE_VERSION, PebbleDatabase, refuseNewer } from './database';
import { ProjectRepository } from './projectRepository';
import { storageProblem } from './storageProblem';

let repository: ProjectRepository;
let id: string;
let count = 0;

beforeEach(async () => {
  repository = new ProjectRepository(new PebbleDatabase(`test-${++count}`));
  id = await repository.takeInShipped(writeProjectFile(netLoftProject(), []));
});

const level = async () => (await repository.open(id))!.rig.levelDbfs;
const setLevel = (levelDbfs: number) =>
  repository.change(id, `level ${levelDbfs}`, (p) => ({ ...p, rig: { ...p.rig, levelDbfs } }));
const samples = Float32Array.of(0.25, -1, 0.5);

it('leaves alone what a newer program has stored', async () => {
  const name = `newer-${count}`;
  const newer = new Dexie(name);
  newer.version(DATABASE_VERSION + 1).stores({ projects: 'id, openedAt', later: 'id' });
  await newer.table('projects').put({ id: 'p', project: { version: 99 }, at: 0, openedAt: 1 });
  newer.close();
  const error: unknown = await refuseNewer(name).catch((e: unknown) => e);
  expect(storageProblem(error)).toMatch(/written by a newer Pebble Hall/);
  await refuseNewer(`none of this name ${count}`);
  await refuseNewer(repository.database.name);
  const again = new Dexie(name);
  await again.open();
  expect(again.verno).toBe(DATABASE_VERSION + 1);
  expect(await again.table('projects').get('p')).toMatchObject({ project: { version: 99 } });
  again.close();
});

it('opens a kept sample of version 1, carried over', async () => {
  const bytes = readFileSync(new URL('samples/version-1.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  const [microphone] = project.rig.microphones;
  expect(microphone).toMatchObject({ make: 'Siskin M1', serial: '4417', pointing: 'at the source' });
  expect(project.sweeps[0]).toMatchObject({ id: 's1', microphoneId: microphone!.id, arrivalS: 0.0101 });
  expect((await repository.array(project.sweeps[0]!.traceId))!.samples[4]).toBe(1);
  expect(project.rig.checks['left']).toMatchObject({ levelDbfs: -48, reversed: null });
});

it('opens a kept sample of version 2: its sweeps make the first round', async () => {
  const bytes = readFileSync(new URL('samples/version-2.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  const [round, ...more] = project.rounds;
  expect(more).toEqual([]);
  expect(round).toMatchObject({ name: 'First round', startedAt: 1_700_000_000_000 });
  expect(project.roundId).toBe(round!.id);
  expect(project.sweeps).toMatchObject([{ id: 's1', roundId: round!.id, inAverage: true, decayEnd: null }]);
});

it('opens a kept sample of version 3: one microphone, spots at the ear, no harmonics', async () => {
  const bytes = readFileSync(new URL('samples/version-3.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.rig).toMatchObject({ alongIds: [], pairs: [], repeats: 1, referenceFrom: null });
  expect(project.place.spots.map((s) => s.surface)).toEqual(project.place.spots.map(() => 'ear'));
  expect(project.sweeps[0]).toMatchObject({ repeats: 1, harmonicsId: null, floor: null, groundPlane: false });
});

it('opens a kept sample of version 4: its correction is the first variant, its loads know no settings', async () => {
  const bytes = readFileSync(new URL('samples/version-4.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  const [variant, ...more] = project.variants;
  expect(more).toEqual([]);
  expect(project.variantId).toBe(variant!.id);
  expect(variant!.correction.target.handles).toHaveLength(2);
  expect(variant!.correction).toMatchObject({ strength: 1, alignment: {}, headroomGuard: 'off' });
  expect(project.loads[0]).toMatchObject({ letter: 'B', outputs: null, variantId: null });
  expect(project).toMatchObject({ trials: [], chains: [], chainId: null, pendingLoad: null });
});

it('opens a kept sample of version 5: no low-frequency channel, nothing sent to the subwoofers, all else as it was', async () => {
  const bytes = readFileSync(new URL('samples/version-5.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.variants.map((v) => [v.name, v.correction.lowChannel])).toEqual([
    ['First variant', null],
    ['Softer', null],
  ]);
  expect(project.variants[0]!.correction.crossovers['left']!.highPass!.frequency).toBe(80);
  expect(project.variants[1]!.correction).toMatchObject({ strength: 0.5 });
  const [load] = project.loads;
  expect(load!.outputs![0]).toMatchObject({ size: 'small', trimDb: -1.5, bassFeed: null, playsBass: false });
  expect(load!.before).toHaveLength(12);
});

it('opens a kept sample of version 6, written before anything was moved: the same, to the sample', async () => {
  const bytes = readFileSync(new URL('samples/version-6.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.variants.map((v) => [v.name, v.correction.lowChannel])).toEqual([
    ['First variant', null],
    [
      'With its low-frequency channel',
      { gainDb: 10, lowPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 120 } },
    ],
  ]);
  expect(project.variants[0]!.correction.crossovers['left']!.highPass!.frequency).toBe(80);
  const files = unzipSync(new Uint8Array(bytes));
  const wav = readWav(files['traces/t1.wav']!);
  const kept = await repository.array(project.sweeps[0]!.traceId);
  expect(kept!.samples).toEqual(Float32Array.from(wav.channels[0]!));
  expect(kept!.rate).toBe(wav.rate);
});

it('opens a kept sample of version 7: targets keep natural roll-offs, the guard is for programme, what was designed is still loaded', async () => {
  const bytes = readFileSync(new URL('samples/version-7.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  const [first] = project.variants;
  expect(first!.correction.target).toMatchObject({ keepsRollOff: true, lowExtensionHz: 42 });
  expect(first!.correction).toMatchObject({ headroomGuard: 'programme', madeFrom: { levels: 'aligned' } });
  expect(project.sweeps[0]!.verdict).toMatchObject({ snrDb: -Infinity, reasons: [{ snrDb: -Infinity }] });
  expect(project.sweeps[0]!.conditions).toBeNull();
});

it('opens a kept sample of version 8: its room is drawn, the stand-in is its processor, what was loaded is still loaded', async () => {
  const bytes = readFileSync(new URL('samples/version-8.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.processor).toEqual({ adapter: 'stand-in', unit: 'house' });
  expect(boxWalls(project.place.shape)).not.toBeNull();
  expect(project.place.loudspeakers.every((l) => l.group === null && l.abbreviation !== '')).toBe(true);
  expect(project.sweeps.length).toBeGreaterThan(0);
});

it('opens a kept sample of version 9: no models of ones own yet, the picture under its plan as it came', async () => {
  const bytes = readFileSync(new URL('samples/version-9.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.place.models).toEqual([]);
  const [sketch] = project.place.underlays;
  const file = (await repository.enclosed(sketch!.fileId))!;
  expect(file).toMatchObject({ name: 'sketch.png', type: 'image/png' });
  expect([...file.bytes.slice(1, 4)]).toEqual([80, 78, 71]);
});

it('opens a kept sample of version 10: a live session stands ready, nothing is kept yet', async () => {
  const bytes = readFileSync(new URL('samples/version-10.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.live.generator.loudspeakerIds).toEqual([project.place.loudspeakers[0]!.id]);
  expect(project.kept).toEqual([]);
});

it('opens a kept sample of version 11: traces are seen as they were, without a window or another file', async () => {
  const bytes = readFileSync(new URL('samples/version-11.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.kept[0]).toMatchObject({
    name: 'A shelf',
    view: { gainDb: -2, line: 'dashed', window: null, calibrationId: null },
  });
  expect(project.libraryViews).toEqual([]);
  expect(project.alignSteps).toEqual([]);
});

it('opens a kept sample of version 12: its surfaces scatter a little, and are made of nothing that was said', async () => {
  const bytes = readFileSync(new URL('samples/version-12.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  const { shape, materials, wantedS } = project.place;
  for (const face of [...shape.walls, shape.floor, shape.roof]) {
    expect(face.absorption).toHaveLength(8);
    expect(face.scattering).toHaveLength(8);
    expect(face.material).toBeNull();
  }
  expect([materials, wantedS]).toEqual([[], null]);
  expect(project.alignSteps[0]).toMatchObject({ name: 'Two together' });
});

it('opens a kept sample of version 13: its materials and the time that is wanted are kept, nothing was run', async () => {
  const bytes = readFileSync(new URL('samples/version-13.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.place.wantedS).toBe(0.8);
  expect(project.place.materials[0]).toMatchObject({ id: 'mat-1', name: 'Oyster panel' });
  expect(project.place.shape.walls[0]).toMatchObject({ material: 'Oyster panel' });
  expect(project.roomRuns).toEqual([]);
});

it('opens a kept sample of version 14: its run is kept, its sweeps are seen as they are', async () => {
  const bytes = readFileSync(new URL('samples/version-14.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.roomRuns[0]).toMatchObject({ name: 'As it is', mirrored: 2, isHeld: true });
  expect(project.kept[0]).toMatchObject({ name: 'A shelf', view: { gainDb: -2, line: 'dashed' } });
  expect(project.sweeps[0]!.id).toBe('s1');
  expect(project.sweepLooks).toEqual({});
});

it('opens a kept sample of version 15: its all-passes are asked of no processor yet', async () => {
  const bytes = readFileSync(new URL('samples/version-15.pebble.zip', import.meta.url));
  const project = (await repository.open(await repository.takeInShipped(new Uint8Array(bytes))))!;
  expect(project.version).toBe(PROJECT_VERSION);
  expect(project.variants.map((v) => v.correction.allPasses)).toEqual([{}, {}]);
  expect(project.alignSteps[0]!.sources[1]!.allPasses).toEqual([
    { hz: 90, q: 0.8 },
    { hz: 60, q: null },
  ]);
  expect(project.sweepLooks['s1']).toMatchObject({ gainDb: 3, line: 'dashed' });
});

describe('rays of a run', () => {
  const run = (p: Project): RoomRun => ({
    id: 'run-1',
    name: 'As it is',
    madeAt: 1,
    faces: runFaces(p.place),
    volume: 50,
    air: { temperatureC: 20, relativeHumidityPercent: 50 },
    sources: [{ id: 'o', name: 'One', kind: 'omnidirectional', position: { x: 1, y: 1, z: 1 } }],
    receivers: [{ id: 'r', name: 'Seat', position: { x: 2, y: 2, z: 1 }, azimuthDeg: 0 }],
    mirrored: 2,
    lengthS: 0.05,
    raysPerGroup: 100,
    groups: 4,
    seed: 1,
    noiseLevelsDb: null,
    tracedBy: 'browser',
    isHeld: false,
  });
  const rays = (group: number): RunRays => {
    const zero = Array.from({ length: 8 }, () => 0);
    return {
      runId: 'run-1',
      source: 0,
      group,
      rays: 100,
      bins: 50,
      data: new Float32Array(17 * 50).fill(group + 1),
      // groups of before it was kept have none
      directions: group === 0 ? null : new Float32Array(STRETCHES_S.length * SECTORS).fill(0.5),
      emission: null,
      powerDb: zero,
      delayS: 0,
      sent: zero,
      absorbed: zero,
      escaped: zero,
      cut: zero,
      leaks: 0,
      leakAt: null,
    };
  };
  const withRun = async () => {
    await repository.change(id, 'run', (p) => ({ ...p, roomRuns: [run(p)] }));
    for (const group of [0, 1]) await repository.database.rays.put({ ...rays(group), projectId: id });
  };

  it('are carried in a project file, under a new id of the run where they meet their own', async () => {
    await withRun();
    const { bytes } = await repository.exportFile(id);
    const again = (await repository.open(await repository.takeInShipped(bytes)))!;
    expect(again.id).not.toBe(id);
    const [copy] = again.roomRuns;
    expect(copy!.id).not.toBe('run-1');
    expect(await repository.raysThere(again.id)).toEqual([
      { runId: copy!.id, source: 0, group: 0 },
      { runId: copy!.id, source: 0, group: 1 },
    ]);
    expect((await repository.database.rays.get([copy!.id, 0, 1]))!.data[7]).toBe(2);
    expect(await repository.raysThere(id)).toHaveLength(2);
    expect((await repository.sizes()).get(id)!).toBeGreaterThanOrEqual(2 * 17 * 50 * 4);
  });

  it('stay while their run can come back, and go when it cannot', async () => {
    await withRun();
    await repository.change(id, 'no run', (p) => ({ ...p, roomRuns: [] }));
    await repository.tidy(id);
    expect(await repository.raysThere(id)).toHaveLength(2);
    await repository.database.changes.clear();
    await repository.tidy(id);
    expect(await repository.raysThere(id)).toEqual([]);
  });

  it('go with their project', async () => {
    await withRun();
    await repository.remove(id);
    await repository.removeForGood(Date.now() + 1);
    expect(await repository.database.rays.count()).toBe(0);
  });
});

it('a model of ones own comes back from a project file with its data; two of one name do not', async () => {
  const sample = new Uint8Array(readFileSync(new URL('samples/version-9.pebble.zip', import.meta.url)));
  const opened = await repository.takeInShipped(sample);
  const model = { id: 'm', name: 'Heron 12', role: 'full range' as const, sensitivityDb: 97, largestDb: 131 };
  const bytes = Uint8Array.of(1, 2, 3);
  await repository.change(
    opened,
    'model',
    (p) => ({
      ...p,
      place: { ...p.place, models: [{ ...model, source: { kind: 'table' as const, fileId: 'polar' } }] },
    }),
    { enclosed: [{ id: 'polar', name: 'heron.txt', type: 'text/plain', bytes }] },
  );
  const again = (await repository.open(
    await repository.takeInShipped((await repository.exportFile(opened)).bytes),
  ))!;
  const { source } = again.place.models[0]!;
  expect(again.place.models[0]).toMatchObject(model);
  expect([...(await repository.enclosed(source.kind === 'guess' ? '' : source.fileId))!.bytes]).toEqual([
    1, 2, 3,
  ]);
  const twice = {
    ...again,
    place: { ...again.place, models: [0, 1].map((i) => ({ ...again.place.models[0]!, id: `m${i}` })) },
  };
  expect(checkProject(twice)).toEqual({ problem: 'two loudspeaker models have the same name' });
});

it('carries a stored project of version 1 over when it is opened, and keeps it when it is changed', async () => {
  const old = {
    version: 1,
    id: 'old',
    name: 'Old',
    calibrations: {},
    sweeps: [],
    place: {
      name: 'a room',
      size: { x: 5, y: 4, z: 3 },
      temperatureC: 20,
      seats: [],
      furniture: [],
      loudspeakers: [],
      spots: [],
    },
    correction: { handles: [{ frequency: 1000, levelDb: 0 }] },
    loads: [],
  };
  const rig = {
    kind: 'simulated',
    pace: 'quick',
    microphone: 'Siskin M1',
    calibrationId: null,
    levelDbfs: -30,
    checks: {},
    noise: null,
  };
  const project = { ...old, rig } as unknown as Project;
  await repository.database.projects.put({ id: 'old', project, at: 0, openedAt: 1 });
  expect((await repository.open('old'))!.rig.microphones[0]!.make).toBe('Siskin M1');
  await repository.change('old', 'name', (p) => ({ ...p, name: 'New' }));
  expect(await repository.open('old')).toMatchObject({
    version: PROJECT_VERSION,
    name: 'New',
    rig: { levelDbfs: -30 },
  });
  await repository.undo('old');
  expect(await repository.open('old')).toMatchObject({ version: PROJECT_VERSION, name: 'Old' });
});

describe('changes', () => {
  it('can be undone and done again, in order, and a new one forgets what was undone', async () => {
    await setLevel(-30);
    await setLevel(-20);
    expect(await repository.steps(id)).toEqual({ undo: 'level -20', redo: null });
    await repository.undo(id);
    await repository.undo(id);
    expect(await level()).toBe(-48);
    expect(await repository.undo(id)).toBeNull();
    await repository.redo(id);
    expect(await level()).toBe(-30);
    await setLevel(-25);
    expect(await repository.steps(id)).toEqual({ undo: 'level -25', redo: null });
    await repository.undo(id);
    expect(await level()).toBe(-30);
  });

  it('of two tabs do not overwrite each other', async () => {
    const other = new ProjectRepository(new PebbleDatabase(`test-${count}`));
    await Promise.all([
      setLevel(-12),
      other.change(id, 'name', (p) => ({ ...p, name: 'Renamed' })),
      repository.change(id, 'sweep length', (p) => ({ ...p, rig: { ...p.rig, sweepS: 7 } })),
    ]);
    const project = (await repository.open(id))!;
    expect([project.rig.levelDbfs, project.name, project.rig.sweepS]).toEqual([-12, 'Renamed', 7]);
  });

  it('that fail change nothing, their arrays included', async () => {
    const broken = repository.change(
      id,
      'broken',
      () => {
        throw new Error('no');
      },
      { arrays: [{ id: 'a1', kind: 'trace', rate: 48000, zero: 0, samples }] },
    );
    await expect(broken).rejects.toThrow(/no/);
    expect(await level()).toBe(-48);
    expect(await repository.array('a1')).toBeUndefined();
    expect(await repository.steps(id)).toEqual({ undo: null, redo: null });
  });

  it('tell whether any of them is still being stored, the failed ones too', async () => {
    expect(repository.settled()).toBeNull();
    const storing = setLevel(-33);
    const failing = repository.change(id, 'broken', () => {
      throw new Error('no');
    });
    failing.catch(() => {});
    const settled = repository.settled();
    expect(settled).not.toBeNull();
    await settled;
    expect(await level()).toBe(-33);
    await Promise.allSettled([storing, failing]);
    expect(repository.settled()).toBeNull();
    const undone = repository.undo(id);
    expect(repository.settled()).not.toBeNull();
    await undone;
    expect(repository.settled()).toBeNull();
  });

  it('are kept for a hundred steps', async () => {
    for (let i = 0; i < 105; i++) await setLevel(-20 - i / 10);
    let steps = 0;
    while (await repository.undo(id)) steps++;
    expect(steps).toBe(100);
  });
});

describe('project files', () => {
  const withSweep = (p: Project): Project => ({
    ...p,
    loads: [
      {
        id: 'l',
        letter: 'B',
        name: '',
        loadedAt: 1,
        checksum: 2,
        filters: { left: 'f1' },
        spans: {},
        outputs: null,
        before: null,
        designKey: 'k',
        variantId: null,
        variantName: '',
        verdict: null,
      },
    ],
  });

  it('come back with their arrays, beside what is there, under new ids where theirs are taken', async () => {
    await repository.change(id, 'load', withSweep, {
      arrays: [{ id: 'f1', kind: 'filter', rate: 48000, zero: 0, samples }],
    });
    const { bytes } = await repository.exportFile(id);
    const copy = await repository.takeInShipped(bytes);
    expect(copy).not.toBe(id);
    const filterId = (await repository.open(copy))!.loads[0]!.filters.left!;
    expect(filterId).not.toBe('f1');
    expect((await repository.array(filterId))!.samples).toEqual(samples);
    expect((await repository.array('f1'))!.samples).toEqual(samples);
    expect(await repository.list()).toHaveLength(2);
  });

  it('touch nothing that is there, whatever ids a file claims', async () => {
    const sound = { id: 'f1', kind: 'filter' as const, rate: 48000, zero: 0 };
    await repository.change(id, 'load', withSweep, { arrays: [{ ...sound, samples }] });
    const { project } = await repository.exportFile(id);
    // a file of somebody else that calls its project and its sounds as ours are called
    const strange = { ...sound, samples: samples.map(() => 0.5) };
    const taken = await repository.takeIn({ project, arrays: [strange], enclosed: [], rays: [] });
    expect(taken).not.toBe(id);
    expect((await repository.array('f1'))!.samples).toEqual(samples);
    const own = (await repository.open(taken))!.loads[0]!.filters.left!;
    expect((await repository.array(own))!.samples[0]).toBe(0.5);
  });

  it('lose no sound that could be asked for again, and keep none that cannot', async () => {
    const sound = { kind: 'filter' as const, rate: 48000, zero: 0, samples };
    await repository.change(id, 'load', withSweep, { arrays: [{ ...sound, id: 'f1' }] });
    await repository.change(id, 'load gone', (p) => ({ ...p, loads: [] }));
    await repository.database.arrays.put({ ...sound, id: 'loose', projectId: id });
    expect(await repository.tidy(id)).toBe(1);
    expect(await repository.array('loose')).toBeUndefined();
    await repository.undo(id);
    expect((await repository.open(id))!.loads[0]!.filters.left).toBe('f1');
    expect((await repository.array('f1'))!.samples).toEqual(samples);
  });

  it('carry the drawings that lie under the plan: out and in, in copies, and away with their project', async () => {
    const underlay: Underlay = {
      id: 'u',
      name: 'Plan',
      fileId: 'd',
      isShown: true,
      at: { x: 0, y: 0, z: 0 },
      turnDeg: 0,
      kind: 'model',
      up: 'z',
      unitM: 1,
    };
    const file = { id: 'd', name: 'hall.dxf', type: '', bytes: Uint8Array.of(1, 2, 3, 4) };
    const lay = (p: Project): Project => ({ ...p, place: { ...p.place, underlays: [underlay] } });
    await repository.change(id, 'a drawing', lay, { enclosed: [file] });
    const { bytes } = await repository.exportFile(id);
    const copies = [await repository.takeInShipped(bytes), await repository.duplicate(id, 'Copy')];
    for (const copy of copies) {
      const { fileId } = (await repository.open(copy))!.place.underlays[0]!;
      expect(fileId).not.toBe('d');
      expect([...(await repository.enclosed(fileId))!.bytes]).toEqual([1, 2, 3, 4]);
    }
    expect((await repository.sizes()).get(id)).toBe(4);
    await repository.remove(id);
    await repository.removeForGood(Date.now() + 1);
    expect(await repository.enclosed('d')).toBeUndefined();
  });

  it('are duplicated with their sounds, and neither touches the other afterwards', async () => {
    await repository.change(id, 'load', withSweep, {
      arrays: [{ id: 'f1', kind: 'filter', rate: 48000, zero: 0, samples }],
    });
    const copy = await repository.duplicate(id, 'Another evening');
    expect((await repository.open(copy))!.name).toBe('Another evening');
    const sizes = await repository.sizes();
    expect([sizes.get(id), sizes.get(copy)]).toEqual([12, 12]); // three samples of four bytes
    await repository.remove(id);
    await repository.removeForGood(Date.now() + 1);
    expect((await repository.list()).map((p) => p.id)).toEqual([copy]);
    expect(await repository.array('f1')).toBeUndefined();
    const kept = (await repository.open(copy))!.loads[0]!.filters.left!;
    expect((await repository.array(kept))!.samples).toEqual(samples);
  });

  it('that are deleted come back until they are removed for good', async () => {
    const copy = await repository.duplicate(id, 'Another evening');
    await repository.remove(copy);
    expect(await repository.newest()).toBe(id);
    await repository.removeForGood(Date.now() - 1000);
    await repository.bringBack(copy);
    expect((await repository.list()).every((p) => p.deletedAt === null)).toBe(true);
    expect((await repository.open(copy))!.name).toBe('Another evening');
  });

  it('that are broken store nothing', async () => {
    const { bytes } = await repository.exportFile(id);
    await expect(repository.takeInShipped(bytes.subarray(0, bytes.length - 40))).rejects.toThrow(/cut off/);
    expect(await repository.list()).toHaveLength(1);
  });
});

it('explains storage that is full, forbidden or newer, and nothing else', () => {
  const named = (name: string, inner?: unknown) => Object.assign(new Error('x'), { name, inner });
  expect(storageProblem(named('AbortError', named('QuotaExceededError')))).toMatch(/no room left.*try again/);
  expect(storageProblem(named('SecurityError'))).toMatch(/does not let Pebble Hall store/);
  expect(storageProblem(named('VersionError'))).toMatch(/newer Pebble Hall/);
  expect(storageProblem(new Error('x'))).toBeNull();
});
