import { asSet } from '@pebble-hall/core/alignment';
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
import { expect, it } from 'vitest';
import { alignedSources, channelsOf, traceIdsOf } from './alignSources';
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
} as unknown as Project;

const source = (id: string, of: AlignSource['of'], change: Partial<AlignSource> = {}): AlignSource => ({
  ...plainSetting(),
  id,
  name: id,
  of,
  ...change,
});
const channel = (id: string, change: Partial<AlignSource> = {}) =>
  source(id, { kind: 'channel', loudspeakerId: id }, change);
const trace = (id: string) => source(id, { kind: 'traces', traceIds: [id], shownId: id });
const seenOf = (ids: string[], of: (id: string) => LibraryCurve = () => flatCurve(1)) =>
  new Map(ids.map((id) => [id, { curve: of(id), problem: null }]));

it('channels are heard where both were swept and well; a spot left out of the average counts for nothing', () => {
  const step = newStep('s', 'S', [channel('main'), channel('sub')]);
  const ids = traceIdsOf(project, step);
  expect(ids.sort()).toEqual(['main-1', 'main-3', 'sub-1', 'sub-3']);
  const { points, problems } = alignedSources(project, step, seenOf(ids));
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
  const ids = traceIdsOf(project, step);
  expect(alignedSources(project, step, seenOf(ids)).points.map((p) => p.spotId)).toEqual(['1']);
  const reading = alignedSources(project, step, seenOf(['flat']));
  expect(reading).toEqual({ points: [], problems: [], isReading: true });
});

it('a loudspeaker at a distance is later and quieter by it, two of them twice as much', () => {
  const [reference] = references(project.place);
  const of = { kind: 'distance', referenceId: reference!.id, distanceM: 4, count: 2 } as const;
  const step = newStep('s', 'S', [source('far', of), trace('flat')]);
  const { points } = alignedSources(project, step, seenOf(traceIdsOf(project, step)));
  const far = points[0]!.curves.get('far')!;
  const n = 200;
  const angle = (-2 * Math.PI * LIBRARY_GRID[n]! * 4) / speedOfSound(20);
  expect(far.re[n]).toBeCloseTo((2 / 4) * Math.cos(angle), 9);
  expect(far.im[n]).toBeCloseTo((2 / 4) * Math.sin(angle), 9);
});

it('what Live took off a trace for the eye is given back to it', () => {
  const live = traceOfFile('heard', { origin: { by: 'live', delayS: 0.0104 } as never });
  const known = { ...project, kept: [...project.kept, live] };
  const step = newStep('s', 'S', [trace('heard'), trace('flat')]);
  const { points } = alignedSources(known, step, seenOf(['heard', 'flat']));
  const n = 150;
  const angle = -2 * Math.PI * LIBRARY_GRID[n]! * 0.0104;
  expect(points[0]!.curves.get('heard')!.im[n]).toBeCloseTo(Math.sin(angle), 9);
  expect(points[0]!.curves.get('flat')!.im[n]).toBe(0);
});

it('a group is the sum of what was brought together, as it was set', () => {
  const pair = newStep('pair', 'Pair', [channel('main'), channel('sub', { inverted: true, delayS: 0.001 })]);
  const known = { ...project, alignSteps: [pair] };
  const group = source('group', { kind: 'step', stepId: 'pair' });
  const step = newStep('s', 'S', [group, trace('flat')]);
  expect(channelsOf(known, group)).toEqual(['main', 'sub']);
  const ids = traceIdsOf(known, step);
  const { points } = alignedSources(
    known,
    step,
    seenOf(ids, (id) => flatCurve(id.startsWith('sub') ? 0.5 : 1)),
  );
  const inside = asSet(flatCurve(0.5), pair.sources[1]!);
  expect(points[0]!.curves.get('group')!.re[77]).toBeCloseTo(1 + inside.re[77]!, 9);
});

it('says why nothing can be brought together, and what to do', () => {
  const why = (...sources: AlignSource[]) => {
    const step = newStep('s', 'S', sources);
    const ids = [...traceIdsOf(project, step), 'levels'];
    const seen = seenOf(ids, (id) => flatCurve(1, { hasPhase: id !== 'levels' }));
    return alignedSources({ ...project, kept: [...project.kept, traceOfFile('levels')] }, step, seen)
      .problems;
  };
  expect(why(trace('flat'), trace('levels'))[0]).toMatch(/levels has levels, but no phase/);
  expect(why(trace('flat'), trace('noise'))[0]).toMatch(/noise is a spectrum/);
  expect(why(trace('flat'), trace('lost'))[0]).toMatch(/trace of lost is gone/);
  expect(why(channel('main'), channel('nobody'))[0]).toMatch(/At no spot.*Mic walk/);
  expect(why(trace('flat'), source('g', { kind: 'step', stepId: 'x' }))[0]).toMatch(
    /group that g is made of is gone/,
  );
});
