import { expect, it } from 'vitest';
import { spotVerdict } from './spotVerdicts';

const spot = { id: 's2', name: 'Spot 2' };
const miss = (id: string, worstDb: number) => ({ id, difference: { rmsDb: 0.1, worstDb, worstAt: 100 } });

it('a spot is judged by the channel that misses most there, above or below', () => {
  expect(
    spotVerdict(spot, [miss('left', 0.2), miss('sub', -0.7), { id: 'right', difference: null }]),
  ).toEqual({ spotId: 's2', name: 'Spot 2', measured: 2, worst: { id: 'sub', db: -0.7, at: 100 } });
});

it('a spot where nothing was measured again has no verdict', () => {
  expect(spotVerdict(spot, [{ id: 'left', difference: null }])).toBeNull();
});
