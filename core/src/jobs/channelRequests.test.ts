import { sweepForTest } from '../../../demo/sweepForTest';
import { plainSub } from '../processing/index.js';
import { variantOf, type Calibration, type Correction, type Project, type Sweep } from '../project/index.js';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { channelRequests, homeSum, sweepsUsed, togetherIds } from './channelRequests.js';
import { traceRef } from './sweepTraces.js';
import { sourceKey, type TraceSum } from './traceSource.js';

const empty = netLoftProject();
const SPOTS = empty.place.spots.map((s) => s.id);
const [home, second, third, out] = SPOTS as [string, string, string, string];
const project = (sweeps: Sweep[], change: Partial<Project> = {}): Project => ({
  ...empty,
  sweeps,
  ...change,
});
const ref = (sweep: Sweep) => traceRef(sweep, {});
const everywhere = (id: string) => SPOTS.map((spot) => sweepForTest(spot, id));
const correction = (change: Partial<Correction> = {}): Correction => ({
  ...variantOf(empty).correction,
  ...change,
});
const together = correction({ subs: { 'sub-1': plainSub(), 'sub-2': plainSub() } });

describe('what the design of a channel rests on', () => {
  it('the spots in the average with their weights, and those left out, which only judge', () => {
    const weighted = {
      ...empty.place,
      spots: empty.place.spots.map((s) => (s.id === second ? { ...s, weight: 3 } : s)),
    };
    const p = project(everywhere('left'), { place: weighted });
    const [request, ...others] = channelRequests(p, correction());
    expect(others).toEqual([]); // only what was measured can be corrected
    expect(request).toMatchObject({ id: 'left', weights: [1, 3, 1] });
    expect(request!.spots).toEqual([home, second, third].map((s) => ref(sweepForTest(s, 'left'))));
    expect(request!.leftOut).toEqual([ref(sweepForTest(out, 'left'))]);
  });

  it('is the same for each channel when only some are asked about', () => {
    const walked = project(['left', 'right', 'sub-1', 'sub-2'].flatMap(everywhere));
    const all = channelRequests(walked, together);
    const some = channelRequests(walked, together, ['sub-2', 'left', 'gone']);
    expect(some).toEqual(all.filter((r) => ['left', 'sub-2'].includes(r.id)));
    expect(some).toHaveLength(2);
  });

  it('no sweep that failed, and none that was left out by hand', () => {
    const failed = { state: 'failed', reasons: [], snrDb: 3, band: null } as Sweep['verdict'];
    const p = project([
      sweepForTest(home, 'left'),
      sweepForTest(second, 'left', { verdict: failed }),
      sweepForTest(third, 'left', { inAverage: false }),
    ]);
    expect(channelRequests(p, correction())[0]!.spots).toHaveLength(1);
    expect(sweepsUsed(p)).toHaveLength(1);
  });

  it('its own target, span and level where it has them, else what is shared or found', () => {
    const p = project([...everywhere('left'), ...everywhere('right')]);
    const span = { from: 60, to: 12000 };
    const [left, right] = channelRequests(
      p,
      correction({ spans: { left: span }, targetLevels: { left: -30 } }),
    );
    expect(left).toMatchObject({ span, targetOffsetDb: -30 });
    expect(right).toMatchObject({ span: null, targetOffsetDb: null });
    expect(left!.target).toEqual(right!.target);
  });

  it('a sweep seen through another calibration, or lowered for the floor, is another trace', () => {
    const sweep = sweepForTest(home, 'left');
    const files = { file: { id: 'file' } as Calibration };
    const keys = [
      sweep,
      { ...sweep, calibrationId: 'file' },
      { ...sweep, groundPlane: true },
      { ...sweep, levelOffsetDb: 1 },
    ].map((s) => sourceKey(traceRef(s, files)));
    expect(new Set(keys).size).toBe(4);
    const floor = { joinedId: 'joined' } as Sweep['floor'];
    expect(traceRef({ ...sweep, floor }, {}).arrayId).toBe('joined');
    expect(traceRef({ ...sweep, floor }, {}, 'impulse').arrayId).toMatch(/^trace-/);
  });
});

describe('subwoofers that work together', () => {
  const p = project([...everywhere('sub-1'), ...everywhere('sub-2')]);

  it('are corrected as one: the same sum at every spot that has both, with the settings of each', () => {
    expect(togetherIds(p, together)).toEqual(['sub-1', 'sub-2']);
    const [one, two] = channelRequests(p, together);
    expect(one!.spots).toEqual(two!.spots);
    expect(one!.spots).toHaveLength(3);
    expect(one!.leftOut).toHaveLength(1);
    const { parts } = one!.spots[0] as TraceSum;
    expect(parts.map((part) => part.setting)).toEqual([plainSub(), plainSub()]);
    const delayed = correction({ subs: { ...together.subs, 'sub-2': { ...plainSub(), delayS: 0.003 } } });
    expect(channelRequests(p, delayed)[0]!.spots).not.toEqual(one!.spots);
  });

  it('share span and level of the first', () => {
    const span = { from: 25, to: 100 };
    const set = { ...together, spans: { 'sub-1': span }, targetLevels: { 'sub-1': -20 } };
    for (const request of channelRequests(p, set))
      expect(request).toMatchObject({ span, targetOffsetDb: -20 });
  });

  it('use only spots that have all of them, and are heard as their sum at the home spot', () => {
    const fewer = project([
      ...everywhere('sub-1'),
      ...everywhere('sub-2').filter((s) => s.spotId !== second),
    ]);
    const spots = channelRequests(fewer, together)[0]!.spots as TraceSum[];
    const taken = (id: string) => [home, third].map((s) => sweepForTest(s, id).traceId);
    expect(spots.map((s) => s.parts[0]!.trace.arrayId)).toEqual(taken('sub-1'));
    expect(spots.map((s) => s.parts[1]!.trace.arrayId)).toEqual(taken('sub-2'));
    expect(homeSum(fewer, together, 'sub-1')).toEqual(spots[0]);
    expect(homeSum(fewer, correction(), 'sub-1')).toBeNull();
    const homeless = project(
      [...everywhere('sub-1'), ...everywhere('sub-2')].filter(
        (s) => s.spotId !== home || s.loudspeakerId === 'sub-1',
      ),
    );
    expect(homeSum(homeless, together, 'sub-2')).toBeNull();
  });
});
