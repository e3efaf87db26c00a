import { expect, it } from 'vitest';
import { FILES_ONLY } from '../processing/index.js';
import { newPlace, placeProblems, plainLoudspeaker, USUAL_SIZE, type Place } from './index.js';

const room = newPlace({
  name: 'R',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
});
const hall = newPlace({ name: 'H', kind: 'hall', size: USUAL_SIZE.hall, layoutId: 'mains' });
const of = (change: Partial<Place>, base = room) => placeProblems({ ...base, ...change }, FILES_ONLY);
const withShape = (change: Partial<Place['shape']>, base = room) =>
  of({ shape: { ...base.shape, ...change } }, base);
const loudspeaker = (position: { x: number; y: number; z: number }, more = {}) =>
  plainLoudspeaker({ id: 'one', name: 'One', role: 'full range', output: 1, position, ...more });

it('finds nothing wrong with places as they begin', () => {
  expect(of({})).toEqual([]);
  expect(of({}, hall)).toEqual([]);
});

it('tells walls that cross, rooms without a volume, a ceiling that meets the floor', () => {
  const [a, b, c, d] = room.shape.outline;
  expect(withShape({ outline: [a!, c!, b!, d!] })).toContainEqual({ kind: 'walls cross', corners: [0, 2] });
  const line = [a!, b!, { x: 3, y: 0 }, { x: 2, y: 0 }];
  expect(withShape({ outline: line }).map((p) => p.kind)).toContain('no volume');
  expect(withShape({ floorRise: 0.6 }).map((p) => p.kind)).toContain('ceiling below floor');
});

it('tells what is outside, and what is in a wall unless it is built in', () => {
  const outside = of({ seats: [{ id: 's', name: 'S', position: { x: -1, y: 1, z: 1 } }] });
  expect(outside).toEqual([{ kind: 'outside', what: 'seat', ids: ['s'], count: 1 }]);
  expect(of({ loudspeakers: [loudspeaker({ x: 2, y: 2, z: 9 })] })).toEqual([
    { kind: 'outside', what: 'loudspeaker', ids: ['one'], count: 1 },
  ]);
  const inWall = { x: 0.01, y: 2, z: 1 };
  expect(of({ loudspeakers: [loudspeaker(inWall)] })).toEqual([{ kind: 'in the wall', ids: ['one'] }]);
  expect(of({ loudspeakers: [loudspeaker(inWall, { mount: 'in the wall' })] })).toEqual([]);
  const row = { kind: 'row' as const, count: 3, spacingM: 4 };
  expect(of({ loudspeakers: [loudspeaker({ x: 2, y: 2, z: 1 }, { group: row })] })[0]).toMatchObject({
    kind: 'outside',
  });
  const [area] = hall.audience;
  const wide = { ...area!, outline: area!.outline.map((c) => ({ ...c, y: 2 * c.y })) };
  expect(of({ audience: [wide] }, hall)).toContainEqual({
    kind: 'outside',
    what: 'area',
    ids: ['audience-1'],
    count: 1,
  });
});

it('tells two channels on one output, outputs that there are not, two loudspeakers in one place', () => {
  const at = (x: number) => ({ x, y: 2, z: 1 });
  const two = [loudspeaker(at(2)), { ...loudspeaker(at(3)), id: 'two' }];
  expect(of({ loudspeakers: two })).toEqual([{ kind: 'output shared', output: 1, ids: ['one', 'two'] }]);
  expect(of({ loudspeakers: [two[0]!, { ...two[1]!, fitted: false }] })).toEqual([]);
  expect(of({ loudspeakers: [two[0]!, { ...two[1]!, output: 2, position: at(2) }] })).toEqual([
    { kind: 'same place', ids: ['one', 'two'] },
  ]);
  const few = { ...FILES_ONLY, outputs: 2 };
  expect(placeProblems({ ...room, loudspeakers: [loudspeaker(at(2), { output: 3 })] }, few)).toEqual([
    { kind: 'no such output', outputs: 2, ids: ['one'] },
  ]);
});

it('tells seats too many to count instead of counting them', () => {
  const field = newPlace({ name: 'F', kind: 'open air', size: USUAL_SIZE['open air'], layoutId: 'none' });
  const [area] = field.audience;
  expect(of({ audience: [{ ...area!, rowM: 0.2, seatM: 0.2 }] }, field)).toEqual([
    { kind: 'too many seats', ids: ['audience-1'] },
  ]);
});
