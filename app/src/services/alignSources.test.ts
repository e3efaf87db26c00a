import { asSet } from '@pebble-hall/core/alignment';
import type { AudienceArea } from '@pebble-hall/core/place';
import type { SourceField } from '@pebble-hall/core/coverage';
import {
  newStep,
  plainSetting,
  type AlignSource,
  type Project,
  type Spot,
  type Sweep,
} from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { describe, expect, it } from 'vitest';
import { alignedSources, channelsOf, sweepIdsOf, traceIdsOf, type KnownOfSources } from './alignSources';
import { flatCurve, traceOfFile } from './curvesForTest';
import { references } from './references';

const spot = (id: string, inAverage = true): Spot => ({
  id,
  name: `Spot ${id}`,
  position: { x: 0, y: 0, z: 0 },
  inAverage,
  weight: 2,
  surface: 'ear',
});
const sweep = (spotId: string, loudspeakerId: string, change: Partial<Sweep> = {}): Sweep =>
  ({
    id: `${loudspeakerId}-${spotId}`,
    stage: 'as found',
    roundId: 'r',
    spotId,
    loudspeakerId,
    traceId: 't',
    calibrationId: null,
    verdict: { state: 'good' },
    levelOffsetDb: 0,
    groundPlane: false,
    floor: null,
    ...change,
  }) as unknown as Sweep;
const project = {
  place: {
    temperatureC: 20,
    models: [],
    spots: [spot('1'), spot('2'), spot('3', false)],
    loudspeakers: [
      { id: 'main', name: 'Main' },
      { id: 'sub', name: 'Sub' },
    ],
  },
  rounds: [{ id: 'r', name: 'R' }],
  roundId: 'r',
  sweeps: [
    sweep('1', 'main'),
    sweep('2', 'main'),
    sweep('3', 'main'),
    sweep('1', 'sub'),
    sweep('2', 'sub', { verdict: { state: 'failed' } } as never),
    sweep('3', 'sub', { levelOffsetDb: 20, groundPlane: true }),
  ],
  kept: [traceOfFile('flat'), traceOfFile('noise', { kind: 'spectrum' })],
  alignSteps: [],
  live: { measurements: [{ id: 'm1' }, { id: 'm2' }] },
} as unknown as Project;

const source = (id: string, of: AlignSource['of'], change: Partial<AlignSource> = {}): AlignSource => ({
  ...plainSetting(),
  id,
  name: id,
  of,
  ...change,
});
const channel = (id: string, change: Partial<AlignSource> = {}) =>
  source(id, { kind: 'channels', loudspeakerIds: [id], from: 'sweeps' }, change);
const trace = (id: string) => source(id, { kind: 'traces', traceIds: [id], shownId: id });
const seenOf = (ids: string[], of: (id: string) => LibraryCurve = () => flatCurve(1)) =>
  new Map(ids.map((id) => [id, { curve: of(id), problem: null }]));

/** All that a step asks for, read. */
const known = (
  of: Parameters<typeof traceIdsOf>[0],
  step: Parameters<typeof traceIdsOf>[1],
  curve?: (id: string) => LibraryCurve,
): KnownOfSources => ({
  seen: seenOf(traceIdsOf(of, step), curve),
  swept: seenOf(sweepIdsOf(of, step), curve),
  fields: null,
  heard: null,
});
const modelsSay = (fields: KnownOfSources['fields']): KnownOfSources => ({
  seen: new Map(),
  swept: new Map(),
  fields,
  heard: null,
});

it('channels are heard where both were swept and well; a spot left out of the average counts for nothing', () => {
  const step = newStep('s', 'S', [channel('main'), channel('sub')]);
  expect(traceIdsOf(project, step)).toEqual([]);
  expect(sweepIdsOf(project, step).sort()).toEqual(['main-1', 'main-3', 'sub-1', 'sub-3']);
  const { points, problems } = alignedSources(project, step, known(project, step));
  expect(problems).toEqual([]);
  expect(points.map((p) => [p.name, p.weight])).toEqual([
    ['Spot 1', 2],
    ['Spot 3', 0],
  ]);
  // of another microphone, on the floor: 20 dB more, and 6 less
  expect(points[1]!.curves.get('sub')!.re[5]).toBeCloseTo(10 / 2, 9);
});

it('a trace beside a channel is held against the home spot alone; while one is read, nothing is there', () => {
  const step = newStep('s', 'S', [channel('main'), trace('flat')]);
  expect(alignedSources(project, step, known(project, step)).points.map((p) => p.id)).toEqual(['1']);
  const reading = alignedSources(project, step, { ...known(project, step), swept: new Map() });
  expect(reading).toEqual({ points: [], problems: [], isReading: true });
});

it('a loudspeaker at a distance is later and quieter by it, two of them twice as much', () => {
  const [reference] = references(project.place);
  const of = { kind: 'distance', referenceId: reference!.id, distanceM: 4, count: 2 } as const;
  const step = newStep('s', 'S', [source('far', of), trace('flat')]);
  const { points } = alignedSources(project, step, known(project, step));
  const far = points[0]!.curves.get('far')!;
  const n = 200;
  const angle = (-2 * Math.PI * LIBRARY_GRID[n]! * 4) / speedOfSound(20);
  expect(far.re[n]).toBeCloseTo((2 / 4) * Math.cos(angle), 9);
  expect(far.im[n]).toBeCloseTo((2 / 4) * Math.sin(angle), 9);
});

it('what Live took off a trace for the eye is given back to it', () => {
  const live = traceOfFile('heard', { origin: { by: 'live', delayS: 0.0104 } as never });
  const kept = { ...project, kept: [...project.kept, live] };
  const step = newStep('s', 'S', [trace('heard'), trace('flat')]);
  const { points } = alignedSources(kept, step, known(kept, step));
  const n = 150;
  const angle = -2 * Math.PI * LIBRARY_GRID[n]! * 0.0104;
  expect(points[0]!.curves.get('heard')!.im[n]).toBeCloseTo(Math.sin(angle), 9);
  expect(points[0]!.curves.get('flat')!.im[n]).toBe(0);
});

describe('what Live hears', () => {
  const live = (id: string) => source(id, { kind: 'live', measurementId: id });
  const step = newStep('s', 'S', [trace('flat'), live('m1')]);
  const at = (heard: KnownOfSources['heard'], of = step) =>
    alignedSources(project, of, { ...known(project, of), heard });
  it('is a source as it is now, with the delay that was taken off for the eye', () => {
    const { points } = at([{ id: 'm1', delayS: 0.004, curve: flatCurve(0.5) }]);
    const n = 120;
    const angle = -2 * Math.PI * LIBRARY_GRID[n]! * 0.004;
    expect(points[0]!.curves.get('m1')!.re[n]).toBeCloseTo(0.5 * Math.cos(angle), 9);
  });
  it('is missed in plain words while it is not there', () => {
    expect(at(null).problems[0]).toMatch(/Start the session in Live/);
    expect(at([{ id: 'm1', delayS: 0, curve: null }]).problems[0]).toMatch(
      /nothing yet that could be trusted/,
    );
    const gone = newStep('s', 'S', [trace('flat'), live('m9')]);
    expect(at([], gone).problems[0]).toMatch(/gone from Live/);
  });
});

it('a group is the sum of what was brought together, as it was set', () => {
  const pair = newStep('pair', 'Pair', [channel('main'), channel('sub', { inverted: true, delayS: 0.001 })]);
  const grouped = { ...project, alignSteps: [pair] };
  const group = source('group', { kind: 'step', stepId: 'pair' });
  const step = newStep('s', 'S', [group, trace('flat')]);
  expect(channelsOf(grouped, group)).toEqual(['main', 'sub']);
  const { points } = alignedSources(
    grouped,
    step,
    known(grouped, step, (id) => flatCurve(id.startsWith('sub') ? 0.5 : 1)),
  );
  const inside = asSet(flatCurve(0.5), pair.sources[1]!);
  expect(points[0]!.curves.get('group')!.re[77]).toBeCloseTo(1 + inside.re[77]!, 9);
});

it('says why nothing can be brought together, and what to do', () => {
  const why = (...sources: AlignSource[]) => {
    const step = newStep('s', 'S', sources);
    const kept = { ...project, kept: [...project.kept, traceOfFile('levels')] };
    const flat = (id: string) => flatCurve(1, { hasPhase: id !== 'levels' });
    return alignedSources(kept, step, known(kept, step, flat)).problems;
  };
  expect(why(trace('flat'), trace('levels'))[0]).toMatch(/levels has levels, but no phase/);
  expect(why(trace('flat'), trace('noise'))[0]).toMatch(/noise is a spectrum/);
  expect(why(trace('flat'), trace('lost'))[0]).toMatch(/trace of lost is gone/);
  expect(why(channel('main'), channel('nobody'))[0]).toMatch(/At no spot.*Mic walk/);
  expect(why(trace('flat'), source('g', { kind: 'step', stepId: 'x' }))[0]).toMatch(
    /group that g is made of is gone/,
  );
});

describe('channels by their models', () => {
  const modelled = (id: string, ...ids: string[]) =>
    source(id, { kind: 'channels', loudspeakerIds: ids, from: 'models' });
  const seats = [
    { id: 'a', name: 'Seat A', position: { x: 1, y: 0, z: 1 } },
    { id: 'b', name: 'Seat B', position: { x: 2, y: 0, z: 1 } },
  ];
  const planned = {
    ...project,
    place: { ...project.place, seats, audience: [], shape: { floorRise: 0 } },
  } as unknown as Project;
  /** Each channel with its own pressure, the same everywhere but twice as much at the last point. */
  const fields = (points: number) =>
    new Map(
      [
        ['main', 1],
        ['sub', 0.25],
      ].map(([id, re]): [string, SourceField] => [
        id as string,
        {
          re: Array.from(LIBRARY_GRID, () =>
            Float64Array.from({ length: points }, (_, p) => (re as number) * (p === points - 1 ? 2 : 1)),
          ),
          im: Array.from(LIBRARY_GRID, () => new Float64Array(points)),
        },
      ]),
    );

  it('are heard at the seats, several of them together, and ask for no trace', () => {
    const step = newStep('s', 'S', [modelled('both', 'main', 'sub'), modelled('one', 'sub')]);
    expect(traceIdsOf(planned, step)).toEqual([]);
    const { points, problems } = alignedSources(planned, step, modelsSay(fields(2)));
    expect(problems).toEqual([]);
    expect(points.map((p) => [p.name, p.weight])).toEqual([
      ['Seat A', 1],
      ['Seat B', 1],
    ]);
    expect(points[0]!.curves.get('both')!.re[9]).toBeCloseTo(1.25, 12);
    expect(points[1]!.curves.get('both')!.re[9]).toBeCloseTo(2.5, 12);
    expect(alignedSources(planned, step, modelsSay(null)).isReading).toBe(true);
  });

  it('seats of an area that counts less count less; those of no area as they are', () => {
    const step = {
      ...newStep('s', 'S', [modelled('m', 'main'), modelled('s', 'sub')]),
      areaWeights: { stalls: 0.5, toString: 3 },
    };
    // half a metre across, and a metre deep: one seat
    const row = (id: string, x: number): AudienceArea => ({
      id,
      name: id,
      outline: [
        { x, y: 1 },
        { x: x + 1, y: 1 },
        { x: x + 1, y: 1.5 },
        { x, y: 1.5 },
      ],
      facingDeg: 180,
      floorM: 0,
      riseM: 0,
      earM: 1.2,
      rowM: 1,
      seatM: 0.5,
    });
    const audience = [row('stalls', 2), row('gallery', 6)];
    const seated: typeof planned = { ...planned, place: { ...planned.place, audience } };
    const { points } = alignedSources(seated, step, modelsSay(fields(4)));
    expect(points.map((p) => p.weight)).toEqual([1, 1, 0.5, 1]);
  });

  it('at the place to align alone, the seats count for nothing', () => {
    const step = {
      ...newStep('s', 'S', [modelled('m', 'main'), modelled('s', 'sub')]),
      aim: 'place' as const,
      alignAt: { position: { x: 3, y: 0, z: 1 }, reason: 'equally loud' },
    };
    const { points } = alignedSources(planned, step, modelsSay(fields(3)));
    expect(points.map((p) => p.weight)).toEqual([1, 0, 0]);
    expect(points[0]!.position).toEqual({ x: 3, y: 0, z: 1 });
  });

  it('have no level in common with what was measured', () => {
    const step = newStep('s', 'S', [modelled('m', 'main'), channel('sub')]);
    expect(alignedSources(planned, step, modelsSay(null)).problems[0]).toMatch(/no level in common/);
  });
});
