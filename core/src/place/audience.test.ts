import { expect, it } from 'vitest';
import { earHeightAt, rectangle, seatsOf, seatsOrNone, type AudienceArea } from './index.js';

const area = (over: Partial<AudienceArea> = {}): AudienceArea => ({
  id: 'stalls',
  name: 'Stalls',
  outline: rectangle(10, 6).map(({ x, y }) => ({ x: x + 5, y: y + 2 })),
  facingDeg: 180,
  floorM: 0,
  riseM: 0,
  earM: 1.2,
  rowM: 1,
  seatM: 0.5,
  ...over,
});
const level = { floorRise: 0 };

it('fills a rectangle: 10 rows of 12, the first seat front left, half a pitch from the edges', () => {
  const seats = seatsOf(area(), level);
  expect(seats).toHaveLength(120);
  expect(seats[0]!.position.x).toBeCloseTo(5.5, 9);
  // they look along -x, so their left is where y is small
  expect(seats[0]!.position.y).toBeCloseTo(2.25, 9);
  expect(seats[11]!.position.y).toBeCloseTo(7.75, 9);
  expect(seats.at(-1)!.position.x).toBeCloseTo(14.5, 9);
  expect(seats[13]).toMatchObject({ row: 2, seat: 2, id: 'stalls-r2-s2', name: 'Stalls, row 2, seat 2' });
});

it('rakes row by row, on a floor that rises as well', () => {
  const seats = seatsOf(area({ riseM: 0.15, floorM: 0.4 }), { floorRise: 0.03 });
  const last = seats.at(-1)!;
  expect(last.position.z).toBeCloseTo(0.03 * 14.5 + 0.4 + 9 * 0.15 + 1.2, 9);
});

it('ears at a point are as high as those of the row that goes there', () => {
  const raked = area({ riseM: 0.15, floorM: 0.4 });
  for (const { position } of seatsOf(raked, { floorRise: 0.03 }))
    expect(earHeightAt(raked, { floorRise: 0.03 }, position)).toBeCloseTo(position.z, 9);
});

it('what is left over is shared by both ends of a row', () => {
  const [first, , , last] = seatsOf(area({ outline: rectangle(1, 2.3), seatM: 0.55 }), level);
  expect(first!.position.y).toBeCloseTo(2.3 - last!.position.y, 9);
});

it('turns with the way people look', () => {
  const seats = seatsOf(area({ facingDeg: 90 }), level);
  expect(seats).toHaveLength(6 * 20);
  // the first row is the one nearest to where they look: y is greatest
  expect(seats[0]!.position.y).toBeCloseTo(7.5, 9);
  expect(seats[0]!.position.x).toBeCloseTo(5.25, 9); // their left, looking along y
});

it('fills both parts of a row that the outline cuts in two, and leaves the gap free', () => {
  // a U, open to the front: 4 x 6 with a bay of 2 x 2 in the middle of the front edge
  const outline = [
    { x: 0, y: 0 },
    { x: 4, y: 0 },
    { x: 4, y: 6 },
    { x: 0, y: 6 },
    { x: 0, y: 4 },
    { x: 2, y: 4 },
    { x: 2, y: 2 },
    { x: 0, y: 2 },
  ];
  const seats = seatsOf(area({ outline, seatM: 1 }), level);
  expect(seats.filter((s) => s.row === 1).map((s) => Math.round(10 * s.position.y) / 10)).toEqual([
    0.5, 1.5, 4.5, 5.5,
  ]);
  expect(seats.filter((s) => s.row === 3)).toHaveLength(6);
});

it('refuses pitches that leave too many', () => {
  expect(() => seatsOf(area({ seatM: 0 }), level)).toThrow(RangeError);
  expect(() => seatsOf(area({ seatM: NaN }), level)).toThrow(RangeError);
  expect(() => seatsOf(area({ rowM: 0.1, seatM: 0.1 }), level)).toThrow(RangeError);
  expect(seatsOrNone(area({ seatM: 0 }), level)).toEqual([]);
  expect(seatsOrNone(area(), level)).toEqual(seatsOf(area(), level));
});
