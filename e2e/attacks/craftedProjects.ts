/** A project as a file holds it; what is put into it need not fit. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Loose = any;

const NO = 'nothing-there';
const plain = { gainDb: 0, delayS: 0, inverted: false, allPasses: [], highPass: null, lowPass: null };
const sourceOf = (id: string, of: object) => ({ id, name: id.toUpperCase(), of, ...plain });

/** Ways to make a whole project refer to nothing, hold nothing, or hold what can hardly be, each within its schema or just beside it. */
export const CRAFTED: Record<string, (project: Loose) => void> = {
  'sweeps of no microphone': (p) => p.sweeps.forEach((s: Loose) => (s.microphoneId = NO)),
  'families of nobody': (p) =>
    (p.families = [{ id: 'f', name: 'Mains', loudspeakerIds: [NO, p.place.loudspeakers[0].id] }]),
  'time from nowhere': (p) => Object.assign(p.rig, { referenceFrom: NO, clickFrom: NO }),
  'distances to nothing': (p) =>
    p.rig.distances.push({ a: NO, b: 'elsewhere', typedM: 1, heardM: null, adjustedM: null }),
  'a calibration of nothing': (p) => (p.rig.microphones[0].calibrationId = NO),
  'corrections of nothing': (p) =>
    p.variants.forEach(({ correction: c }: Loose) => {
      for (const key of [
        'spans',
        'targetLevels',
        'sections',
        'alignment',
        'subs',
        'crossovers',
        'familyTargets',
      ]) {
        const [value] = Object.values(c[key]);
        if (value !== undefined) c[key] = { [NO]: value };
      }
    }),
  'loads of no variant': (p) =>
    p.loads.forEach((l: Loose) => Object.assign(l, { variantId: NO, verdict: { of: 'x', missing: [NO] } })),
  'a chain of nothing': (p) => {
    const chain = {
      id: 'c',
      name: 'Chain',
      source: NO,
      leftId: NO,
      rightId: NO,
      strength: 1,
      style: 'minimum',
    };
    const out = { trimDb: 0, through: 'headphones', headphonesId: NO, outputId: '', outputName: '' };
    Object.assign(p, { chains: [{ ...chain, ...out }], chainId: 'c' });
  },
  'a live session of nothing': (p) => {
    p.live.generator.loudspeakerIds = [NO];
    p.live.electronics.flatId = NO;
    p.live.stands = { [NO]: { x: 1, y: 1, z: 1 } };
    p.live.measurements.forEach((m: Loose) =>
      Object.assign(m, { input: 64, calibration: { by: 'file', id: NO } }),
    );
  },
  'an alignment of nothing': (p) =>
    (p.alignSteps = [
      {
        id: 's',
        name: 'Step',
        sources: [
          sourceOf('a', { kind: 'traces', traceIds: [NO], shownId: NO }),
          sourceOf('b', { kind: 'step', stepId: NO }),
          sourceOf('c', { kind: 'channels', loudspeakerIds: [NO], from: 'sweeps' }),
          sourceOf('d', { kind: 'distance', referenceId: NO, distanceM: 3, count: 1 }),
        ],
        referenceId: 'a',
        target: { traceId: NO, toleranceDb: 3 },
        togetherId: NO,
        aim: 'mean',
        alignAt: null,
        mostAllPasses: 0,
        kept: [],
        restedOn: { [NO]: {} },
        isDone: false,
      },
    ]),
  'runs of nobody': (p) =>
    p.roomRuns.forEach((r: Loose) =>
      r.sources.forEach((s: Loose) => 'loudspeakerId' in s && (s.loudspeakerId = NO)),
    ),
  'models that are not there': (p) => {
    p.place.loudspeakers[0].model = 'No such model';
    p.place.loudspeakers[1].model = 'constructor';
    p.place.layoutId = 'no such';
  },
  'materials by names of every object': (p) => {
    p.place.shape.walls[0].material = '__proto__';
    p.place.shape.floor.material = 'constructor';
  },
  'levels of nothing': (p) =>
    [...p.sweeps, ...Object.values(p.rig.checks)].forEach((s: Loose) => {
      s.distortionDb = s.verdict.snrDb = null;
      s.margins.forEach((m: Loose) => Object.assign(m, { noiseDb: null, signalDb: null, snrDb: null }));
    }),
  'times without end': (p) =>
    p.sweeps.forEach((s: Loose) => Object.assign(s, { arrivalS: 999, levelOffsetDb: 120, levelDbfs: -999 })),
  'nothing in the lists': (p) => {
    Object.assign(p.place, { seats: [], audience: [] });
    Object.assign(p.rig, { checks: {}, heardTraces: {} });
    p.loads = [];
  },
  'no loudspeakers': (p) => {
    Object.assign(p.place, { loudspeakers: [] });
    Object.assign(p.rig, { checks: {}, heardTraces: {} });
    p.sweeps = [];
  },
  'names that are code': (p) =>
    p.place.loudspeakers.forEach((l: Loose) =>
      Object.assign(l, { name: '<img src=x onerror=alert(1)>', abbreviation: '\u202e' }),
    ),
  'calibrations of two points': (p) =>
    Object.values(p.calibrations).forEach((c: Loose) =>
      Object.assign(c, { frequency: [1, 2], levelDb: [200, -200] }),
    ),
  'a room of no height': (p) => (p.place.shape.heightM = 1e-9),
  'a room of no area': (p) => p.place.shape.outline.forEach((c: Loose) => Object.assign(c, { x: 0, y: 0 })),
  'everything in one place': (p) =>
    [...p.place.loudspeakers, ...p.place.spots].forEach((t: Loose) => (t.position = { x: 1, y: 1, z: 1 })),
  'two of one id': (p) => p.place.loudspeakers.push({ ...p.place.loudspeakers[0] }),
  'sweeps of one id': (p) => p.sweeps.push({ ...p.sweeps[0] }),
  'numbers beyond all': (p) => p.sweeps.forEach((s: Loose) => (s.arrivalS = 1e300)),
  'an id of every object': (p) => (p.variants[0].id = p.variantId = 'constructor'),
};
