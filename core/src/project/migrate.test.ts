import { describe, expect, it } from 'vitest';
import { extentOf } from '../place/index.js';
import { migrateProject, PROJECT_VERSION, type Place, type Project } from './index.js';

const target = { handles: [{ frequency: 1000, levelDb: 0 }], lowLiftDb: 2, highTiltDb: 0, lowReachHz: 45 };
const outputs = [{ trimDb: -1 }, { trimDb: 0 }];
const load = { letter: 'B', outputs, before: null };
const place = {
  name: 'a room',
  size: { x: 5, y: 4, z: 3 },
  temperatureC: 19,
  seats: [],
  furniture: [{ kind: 'sofa', x: 1, y: 2, width: 0.9, depth: 1.8 }],
  loudspeakers: [
    {
      id: 'sl',
      name: 'Surround left',
      model: 'Dunlin 6',
      role: 'full range',
      output: 4,
      position: { x: 1, y: 1, z: 1 },
      aimDeg: 30,
      fitted: true,
    },
  ],
  spots: [],
};
/** What version 5 held of what changed with version 6. */
const five = {
  version: 5,
  place,
  name: 'kept',
  variants: [
    {
      name: 'First',
      correction: { strength: 0.5, headroomGuard: true, target, familyTargets: { dunlin: target } },
    },
  ],
  headphones: [{ name: 'Knot 40', target }],
  chains: [{ name: 'Desk', outputName: 'Box', trimDb: -2 }],
  loads: [load],
  pendingLoad: null,
};

it('from version 7 on: names of the trade, however deep they lie', () => {
  const seven = {
    version: 7,
    place,
    variants: [],
    headphones: [],
    sweeps: [
      { takenWith: { output: 1 }, verdict: { marginDb: 40, reasons: [{ kind: 'silent', marginDb: 3 }] } },
    ],
    rig: { checks: { left: { margins: [{ centre: 63, marginDb: 20 }] } } },
  };
  expect(migrateProject<unknown>(seven)).toMatchObject({
    version: PROJECT_VERSION,
    sweeps: [
      {
        polarity: null,
        noise: [],
        conditions: { output: 1 },
        verdict: { snrDb: 40, reasons: [{ kind: 'silent', snrDb: 3 }] },
      },
    ],
    rig: { checks: { left: { margins: [{ centre: 63, snrDb: 20 }] } } },
  });
});

it('from version 8 on: the room is drawn as the box that it was, what is in it keeps its place', () => {
  const nine = migrateProject<unknown>({ version: 8, name: 'kept', place }) as {
    place: Place;
    processor: unknown;
  };
  expect(nine.processor).toEqual({ adapter: 'stand-in', unit: 'house' });
  expect(nine.place).not.toHaveProperty('size');
  expect(nine.place).not.toHaveProperty('furniture');
  expect(extentOf(nine.place.shape)).toEqual({ least: { x: 0, y: 0, z: 0 }, most: { x: 5, y: 4, z: 3 } });
  expect(nine.place.fixtures[0]).toMatchObject({ kind: 'sofa', name: 'Sofa', x: 1, depth: 1.8, top: 0.8 });
  expect(nine.place.loudspeakers[0]).toEqual({
    ...place.loudspeakers[0],
    abbreviation: 'SL',
    feed: '',
    pitchDeg: 0,
    rollDeg: 0,
    mount: 'standing',
    group: null,
    locked: false,
    layoutLabel: null,
  });
});

it('from version 10 on: a live session stands ready, on the first channel, against the loopback', () => {
  const eleven = migrateProject<unknown>({
    version: 10,
    place: { loudspeakers: [{ id: 'sl' }, { id: 'sr' }] },
    rig: { loopbackInput: 3 },
  }) as Project;
  expect(eleven.live.measurements[0]).toMatchObject({ input: 1, reference: 3 });
  expect(eleven.live.generator.loudspeakerIds).toEqual(['sl']);
  expect(eleven.kept).toEqual([]);
});

it('shows sweeps as they are, from version 14 on', () => {
  const fourteen = { version: 14, sweeps: [{ id: 's1' }], alignSteps: [{ id: 'a' }] };
  expect(migrateProject<object>(fourteen)).toEqual({
    version: PROJECT_VERSION,
    sweeps: [{ id: 's1' }],
    sweepLooks: {},
    alignSteps: [{ id: 'a', areaWeights: {} }],
    variants: [],
    roomRuns: [],
  });
});

it('asks no processor for all-passes, from version 15 on', () => {
  const fifteen = {
    version: 15,
    variants: [{ name: 'V', correction: { strength: 1 } }],
    roomRuns: [{ id: 'r' }],
  };
  expect(migrateProject<object>(fifteen)).toEqual({
    version: PROJECT_VERSION,
    variants: [{ name: 'V', correction: { strength: 1, allPasses: {} } }],
    // runs of before were traced by the browser
    roomRuns: [{ id: 'r', tracedBy: 'browser' }],
  });
});

describe('from version 5 on', () => {
  const now = migrateProject(five);

  it('keeps the high end of every target, and sends no bass anywhere', () => {
    expect(now.version).toBe(PROJECT_VERSION);
    const reaching = {
      handles: target.handles,
      lowLiftDb: 2,
      highTiltDb: 0,
      lowExtensionHz: 45,
      highExtensionHz: null,
      keepsRollOff: true,
    };
    expect(now.variants[0]).toEqual({
      name: 'First',
      correction: {
        strength: 0.5,
        headroomGuard: 'programme',
        target: reaching,
        familyTargets: { dunlin: reaching },
        lowChannel: null,
        allPasses: {},
        madeFrom: { subs: null, levels: null, crossover: null },
      },
    });
    expect(now.headphones[0]!.target).toEqual(reaching);
    expect(now.loads[0]!.outputs).toEqual(outputs.map((o) => ({ ...o, bassFeed: null, playsBass: false })));
    expect(now.loads[0]!.before).toBeNull();
  });

  it('lets listening chains play where the system chooses, as they did, and keeps what they were called', () => {
    expect(now.chains).toEqual([{ name: 'Desk', outputName: 'Box', outputId: '', trimDb: -2 }]);
  });

  it('carries a transfer that waits along', () => {
    const waiting = migrateProject<{ pendingLoad: unknown }>({
      ...five,
      pendingLoad: { transferId: 't', load },
    }) as { pendingLoad: { load: typeof load } };
    expect(waiting.pendingLoad.load.outputs[0]).toMatchObject({ trimDb: -1, playsBass: false });
  });

  it('alters nothing of what it was given', () => {
    expect(five.version).toBe(5);
    expect(five.variants[0]!.correction.target).toEqual(target);
  });
});

it('refuses what is newer than itself, and what has no version', () => {
  expect(() => migrateProject({ version: PROJECT_VERSION + 1 })).toThrow(/only up to/);
  expect(() => migrateProject({})).toThrow(/version undefined/);
  const today = { version: PROJECT_VERSION };
  expect(migrateProject(today)).toBe(today);
});
