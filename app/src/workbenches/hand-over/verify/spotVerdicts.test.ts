import { expect, it } from 'vitest';
import { spotVerdict, verdictOf } from './spotVerdicts';

const spot = { id: 's2', name: 'Spot 2' };
const miss = (id: string, worstDb: number, noiseDb = 0, agrees = true) => ({
  id,
  difference: {
    rmsDb: 0.1,
    worstDb,
    worstAt: 100,
    noiseDb,
    agrees,
    unjudged: 0,
    isJudged: true,
    octaves: 6.6,
    raiseDb: 0,
  },
});

it('a spot is judged by the channel that misses most there, above or below; what noise explains comes second', () => {
  const nothing = { id: 'right', difference: null };
  const list = [miss('left', 0.2), miss('sub', -0.7, 0, false), miss('sub 2', 0.9, 0.6), nothing];
  expect(spotVerdict(spot, list)).toEqual({
    spotId: 's2',
    name: 'Spot 2',
    measured: 3,
    worst: { id: 'sub', db: -0.7, at: 100 },
    agrees: false,
    unjudged: 0,
  });
  expect(spotVerdict(spot, list.slice(2))).toMatchObject({ agrees: true, worst: { id: 'sub 2' } });
});

it('what lies too near the noise is no miss and no pass', () => {
  const near = miss('left', 4, 0, false);
  const unjudged = { ...near, difference: { ...near.difference, isJudged: false } };
  expect(spotVerdict(spot, [unjudged, miss('sub', 0.2)])).toMatchObject({ agrees: false, unjudged: 1 });
  expect(verdictOf([unjudged, miss('sub', 0.2)], ['left', 'sub'], 'key')).toBeNull();
});

it('a spot where nothing was measured again has no verdict', () => {
  expect(spotVerdict(spot, [{ id: 'left', difference: null }])).toBeNull();
});

it('the verdict that is kept is of all channels, or there is none', () => {
  const ids = ['left', 'sub'];
  const both = [miss('left', 0.2), miss('sub', 3, 0, false)];
  expect(verdictOf(both, ids, 'key')).toEqual({ of: 'key', missing: ['sub'] });
  expect(verdictOf(both.slice(0, 1), ['left'], 'key')).toEqual({ of: 'key', missing: [] });
  // not measured again, or its filter is gone: nothing can be said of the whole
  expect(verdictOf(both.slice(0, 1), ids, 'key')).toBeNull();
  expect(verdictOf([miss('left', 0.2), { id: 'sub', difference: null }], ids, 'key')).toBeNull();
});
