import { netLoftProject } from '../../../demo/netLoftProject';
import {
  designKey,
  isSpotTaken,
  marginNow,
  verdictKey,
  withCorrection,
  newStep,
  plainSetting,
  type Project,
  type Sweep,
  runFaces,
} from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { stonesOf } from './workbenchStatus';
import { sweepForTest } from '../../../demo/sweepForTest';

const project = netLoftProject();
const sweep = (spotId: string, loudspeakerId: string, state: Sweep['verdict']['state'] = 'good') =>
  sweepForTest(spotId, loudspeakerId, { verdict: { state, reasons: [], snrDb: 40, band: null } });
const all = (p: Project, state: Sweep['verdict']['state'] = 'good') =>
  p.place.spots.flatMap((s) => p.place.loudspeakers.map((l) => sweep(s.id, l.id, state)));
const stone = (p: Project, name: string) => stonesOf(p).find((s) => s.name === name)!;

describe('stones', () => {
  it('are empty before anything is done', () => {
    const [plan, ...others] = stonesOf(project);
    expect(plan).toMatchObject({ name: 'Plan', state: 'done', evidence: '7 channels' });
    expect(others.map((s) => s.state)).toEqual(Array(9).fill('empty'));
  });

  it('of Room model: of how many surfaces it was said what they are made of', () => {
    const made = (walls: number): Project => {
      const { shape } = project.place;
      const of = (face: typeof shape.floor) => ({ ...face, material: 'Brick, painted' });
      const changed = { ...shape, walls: shape.walls.map((w, i) => (i < walls ? of(w) : w)) };
      const all = { ...changed, floor: of(shape.floor), roof: of(shape.roof) };
      return { ...project, place: { ...project.place, shape: walls === 4 ? all : changed } };
    };
    expect(stone(made(1), 'Room model')).toMatchObject({ state: 'begun', evidence: '1 of 6 surfaces' });
    expect(stone(made(4), 'Room model')).toMatchObject({ state: 'done', evidence: '6 of 6 surfaces' });
    const open = { ...project.place, shape: { ...project.place.shape, isEnclosed: false } };
    expect(stone({ ...project, place: open }, 'Room model').evidence).toBe('in the open');
    const { temperatureC, relativeHumidityPercent } = project.place;
    const run = {
      faces: runFaces(project.place),
      air: { temperatureC, relativeHumidityPercent },
    } as Project['roomRuns'][number];
    expect(stone({ ...project, roomRuns: [run] }, 'Room model')).toMatchObject({
      state: 'done',
      evidence: '1 run',
    });
    expect(stone({ ...made(4), roomRuns: [{ ...run, faces: [] }] }, 'Room model').state).toBe('look again');
  });

  it('of Align: how many of its steps are ticked off', () => {
    const source = (id: string) => ({
      ...plainSetting(),
      id,
      name: id,
      of: { kind: 'channels' as const, loudspeakerIds: [id], from: 'sweeps' as const },
    });
    const step = newStep('s', 'S', [source('a'), source('b')]);
    const at = (alignSteps: Project['alignSteps']) =>
      stonesOf({ ...project, alignSteps }).find((s) => s.name === 'Align');
    expect(at([step, { ...step, id: 't', isDone: true }])).toMatchObject({
      state: 'begun',
      evidence: '1 of 2 steps',
    });
    expect(at([{ ...step, isDone: true }])).toMatchObject({ state: 'done', evidence: '1 of 1 step' });
  });

  it('of Live: as many as were kept of it, while Traces counts everything', () => {
    const kept = ['live', 'file', 'live'].map((by, i) => ({ id: String(i), origin: { by } }));
    const now = { ...project, kept } as unknown as Project;
    expect(stonesOf(now).find((s) => s.name === 'Live')).toMatchObject({
      state: 'begun',
      evidence: '2 kept',
    });
    expect(stonesOf(now).find((s) => s.name === 'Traces')).toMatchObject({ evidence: '3 traces' });
  });

  it('of the plan: nothing without channels, look again where something in it cannot be', () => {
    const withAll = (change: (l: Project['place']['loudspeakers'][number]) => object) => ({
      ...project,
      place: {
        ...project.place,
        loudspeakers: project.place.loudspeakers.map((l) => ({ ...l, ...change(l) })),
      },
    });
    expect(
      stone(
        withAll(() => ({ fitted: false })),
        'Plan',
      ),
    ).toMatchObject({ state: 'empty' });
    expect(
      stone(
        withAll((l) => ({ output: l.output === 2 ? 1 : l.output })),
        'Plan',
      ),
    ).toMatchObject({
      state: 'look again',
      evidence: '1 thing: look',
    });
  });

  it('tell how many spots are complete; a failed sweep does not complete one', () => {
    const home = { ...project, sweeps: project.place.loudspeakers.map((l) => sweep('home', l.id)) };
    expect(stone(home, 'Mic walk')).toMatchObject({ state: 'begun', evidence: '1 of 4 spots' });
    expect(isSpotTaken(home, project.place.spots[0]!)).toBe(true);
    expect(stone({ ...project, sweeps: all(project) }, 'Mic walk')).toMatchObject({ state: 'done' });
    expect(stone({ ...project, sweeps: all(project, 'failed') }, 'Mic walk')).toMatchObject({
      evidence: '0 of 4 spots',
    });
  });

  it('judge the rig at the level that is set now', () => {
    const verdict = { state: 'good' as const, reasons: [], snrDb: 25, band: null };
    const checks = Object.fromEntries(
      project.place.loudspeakers.map((l) => [
        l.id,
        {
          takenAt: 1,
          levelDbfs: -40,
          verdict,
          margins: [],
          arrivalS: null,
          reversed: false,
          certainty: 2,
          distortionDb: -50,
          delayS: 0,
          traceId: null,
        },
      ]),
    );
    const at = (levelDbfs: number) => ({ ...project, rig: { ...project.rig, levelDbfs, checks } });
    expect(marginNow(at(-30), 'left')).toBe(35);
    expect(stone(at(-30), 'Rig')).toMatchObject({ state: 'done', evidence: 'ready, 35 dB' });
    expect(stone(at(-36), 'Rig')).toMatchObject({ state: 'done', evidence: 'usable, 29 dB' });
    expect(stone(at(-50), 'Rig')).toMatchObject({ state: 'look again', evidence: 'only 15 dB' });
  });

  it('ask to look again when the design has changed since it was loaded', () => {
    const measured = { ...project, sweeps: all(project) };
    const load = {
      id: 'l',
      letter: 'B',
      name: '',
      loadedAt: 1,
      checksum: 9,
      filters: { left: 'f' },
      spans: { left: { from: 40, to: 10000 } },
      outputs: null,
      before: null,
      variantId: 'variant-1',
      variantName: 'First variant',
      designKey: designKey(measured),
      verdict: null,
    };
    const loaded = { ...measured, loads: [load] };
    expect(stone(loaded, 'Correct')).toMatchObject({ state: 'done', evidence: 'in memory B' });
    const changed = withCorrection(loaded, (c) => ({ ...c, strength: 0.5 }));
    expect(stone(changed, 'Correct')).toMatchObject({ state: 'look again' });
    const verified = {
      ...sweep('home', 'left'),
      stage: 'verified' as const,
      memory: { letter: 'B', name: '', checksum: 9, hasFilters: true },
    };
    expect(stone(loaded, 'Hand over')).toMatchObject({ state: 'begun', evidence: 'memory B loaded' });
    const again = { ...loaded, sweeps: [...loaded.sweeps, verified] };
    expect(stone(again, 'Hand over')).toMatchObject({ state: 'begun', evidence: 'B measured again' });
    const judged = (missing: string[], p = again) => ({
      ...p,
      loads: [{ ...load, verdict: { of: verdictKey(again, load), missing } }],
    });
    expect(stone(judged([]), 'Hand over')).toMatchObject({ state: 'done', evidence: 'B verified' });
    expect(stone(judged(['left']), 'Hand over')).toMatchObject({
      state: 'look again',
      evidence: 'B: 1 misses',
    });
    // a verdict on other sweeps says nothing of these
    const repeated = { ...again, sweeps: [...again.sweeps, { ...verified, id: 'once more' }] };
    expect(stone(judged([], repeated), 'Hand over')).toMatchObject({ evidence: 'B measured again' });
  });
});
