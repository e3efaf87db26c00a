import { plainSub } from '@pebble-hall/core/alignment';
import { variantOf, type Correction, type Project, type Sweep } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { channelRequests, homeKeyOf, sumsOf, sweepsUsed, togetherOf, traceKey } from './designs';
import { exactKey, lowInput } from './exactFilters';
import { sweepForTest } from './sweepForTest';

const empty = netLoftProject();
const SPOTS = empty.place.spots.map((s) => s.id);
const [home, second, third, out] = SPOTS as [string, string, string, string];
const project = (sweeps: Sweep[], change: Partial<Project> = {}): Project => ({
  ...empty,
  sweeps,
  ...change,
});
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
    const [request, ...others] = channelRequests(p);
    expect(others).toEqual([]); // only what was measured can be corrected
    expect(request).toMatchObject({ id: 'left', weights: [1, 3, 1] });
    expect(request!.spots).toEqual([home, second, third].map((s) => traceKey(sweepForTest(s, 'left'))));
    expect(request!.leftOut).toEqual([traceKey(sweepForTest(out, 'left'))]);
  });

  it('no sweep that failed, and none that was left out by hand', () => {
    const failed = { state: 'failed', reasons: [], marginDb: 3, band: null } as Sweep['verdict'];
    const p = project([
      sweepForTest(home, 'left'),
      sweepForTest(second, 'left', { verdict: failed }),
      sweepForTest(third, 'left', { inAverage: false }),
    ]);
    expect(channelRequests(p)[0]!.spots).toHaveLength(1);
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
    const keys = [
      sweep,
      { ...sweep, calibrationId: 'file' },
      { ...sweep, groundPlane: true },
      { ...sweep, levelOffsetDb: 1 },
    ].map((s) => traceKey(s));
    expect(new Set(keys).size).toBe(4);
    const floor = { joinedId: 'joined' } as Sweep['floor'];
    expect(traceKey({ ...sweep, floor })).toMatch(/^joined /);
    expect(traceKey({ ...sweep, floor }, 'impulse')).toMatch(/^trace-/);
  });
});

describe('subwoofers that work together', () => {
  const p = project([...everywhere('sub-1'), ...everywhere('sub-2')]);

  it('are corrected as one: the same sum at every spot that has both, with the settings of each', () => {
    expect(togetherOf(p, together)).toEqual(['sub-1', 'sub-2']);
    const [one, two] = channelRequests(p, together);
    expect(one!.spots).toEqual(two!.spots);
    expect(one!.spots).toHaveLength(3);
    expect(one!.leftOut).toHaveLength(1);
    const { averaged } = sumsOf(p, together);
    expect(averaged[0]!.map((part) => part.setting)).toEqual([plainSub(), plainSub()]);
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
    expect(sumsOf(fewer, together).spotIds).toEqual([home, third]);
    expect(homeKeyOf(fewer, together, 'sub-1')).toBe(channelRequests(fewer, together)[0]!.spots[0]);
    expect(homeKeyOf(fewer, correction(), 'sub-1')).toBeNull();
    const homeless = project(
      [...everywhere('sub-1'), ...everywhere('sub-2')].filter(
        (s) => s.spotId !== home || s.loudspeakerId === 'sub-1',
      ),
    );
    expect(homeKeyOf(homeless, together, 'sub-2')).toBeNull();
  });
});

describe('what exact filters rest on', () => {
  const p = project(everywhere('left'));
  const key = (change: Partial<Correction>) => exactKey(p, correction(change));

  it('target, strength, limits, form and sweeps; not levels, delays, crossovers or the guard', () => {
    const plain = key({});
    expect(key({ strength: 0.5 })).not.toBe(plain);
    expect(key({ maxBoostDb: 3 })).not.toBe(plain);
    expect(key({ filter: { ...correction().filter, style: 'linear' } })).not.toBe(plain);
    expect(exactKey(project(everywhere('right')), correction())).not.toBe(plain);
    for (const same of [
      { alignment: { left: { trimDb: -3, delayMs: 2, inverted: true } } },
      { crossovers: { left: { highPass: null, lowPass: null } } },
      { headroomGuard: false },
      { lowChannel: { gainDb: 0, lowPass: null } },
    ] as Partial<Correction>[])
      expect(key(same), JSON.stringify(same)).toBe(plain);
  });

  it('the low-frequency channel takes the first input whose output has no loudspeaker', () => {
    expect(lowInput(empty)).toBe(8); // seven loudspeakers on outputs 1 to 7
    const moved = empty.place.loudspeakers.map((l) => (l.output === 3 ? { ...l, output: 9 } : l));
    expect(lowInput({ place: { ...empty.place, loudspeakers: moved } })).toBe(3);
    expect(() => lowInput(empty, 7)).toThrow(/every output has a loudspeaker/);
  });
});
