import { newPlace, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { listed } from './listed';
import { markedBy, placeProblemWords } from './placeProblems';

const place = newPlace({ name: 'H', kind: 'hall', size: USUAL_SIZE.hall, layoutId: 'mains' });
const words = (problem: Parameters<typeof placeProblemWords>[0]) =>
  placeProblemWords(problem, place, 'Ledge 4');

it('names what it is about and says what to do', () => {
  expect(words({ kind: 'output shared', output: 3, ids: ['channel-1', 'channel-2'] })).toMatch(
    /^Main left and Main right are on output 3 together.*Give each an output/,
  );
  expect(words({ kind: 'outside', what: 'area', ids: ['audience-1'], count: 1 })).toMatch(
    /^Audience lies outside/,
  );
  expect(words({ kind: 'outside', what: 'seat', ids: ['x'], count: 30 })).toMatch(/30 seats in all/);
  expect(words({ kind: 'no such output', outputs: 4, ids: ['channel-5'] })).toMatch(
    /Fill left is on an output that Ledge 4/,
  );
  expect(words({ kind: 'walls cross', corners: [0, 2] })).toMatch(/corner 1 and 3/);
});

it('marks every thing that a problem is about', () => {
  expect(markedBy([{ kind: 'no volume' }, { kind: 'in the wall', ids: ['a', 'b'] }])).toEqual(
    new Set(['a', 'b']),
  );
});

it('lists names', () => {
  expect([listed([]), listed(['A']), listed(['A', 'B']), listed(['A', 'B', 'C'])]).toEqual([
    '',
    'A',
    'A and B',
    'A, B and C',
  ]);
  expect(listed(['A', 'B', 'C', 'D'], 2)).toBe('A, B and 2 more');
});
