import { expect, it } from 'vitest';
import { headlineOf, type FollowState } from './followState';

const state = (next: Partial<FollowState>): FollowState => ({
  round: 'First round',
  phase: 'idle',
  spotId: 'home',
  spot: 'Home spot',
  where: '1.14 m high',
  channel: null,
  leftS: 0,
  done: 0,
  total: 0,
  share: 0,
  spots: [],
  trouble: null,
  ...next,
});

it('says to move while there is time, and to hold still in time', () => {
  expect(headlineOf(state({}))).toBe('Ready');
  expect(headlineOf(state({ phase: 'counting', leftS: 12 }))).toBe('Move on');
  expect(headlineOf(state({ phase: 'counting', leftS: 3 }))).toBe('Hold still');
  expect(headlineOf(state({ phase: 'sweeping', done: 2, total: 7 }))).toBe('Hold still');
  expect(headlineOf(state({ done: 7, total: 7 }))).toBe('Done');
});
