import { expect, it } from 'vitest';
import type { Point } from '../geometry/index.js';
import { gridOver, type LevelGrid } from './grid.js';
import { meetingPlaces, type MeetingGround } from './meetingPlaces.js';

const HALL = [
  { x: 4, y: 0 },
  { x: 24, y: 0 },
  { x: 24, y: 12 },
  { x: 4, y: 12 },
];
const grid = gridOver([HALL], () => 1.2, 6000);
const over = (of: LevelGrid, value: (p: Point) => number) =>
  Float64Array.from({ length: of.columns * of.rows }, (_, n) =>
    value({ x: of.points[3 * n]!, y: of.points[3 * n + 1]!, z: of.points[3 * n + 2]! }),
  );
const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);
const SPEED = 343;
/** Point sources in the open: level by distance, time by the nearest. */
function ground(first: Point[], second: Point[], gainDb = 0, delayS = 0): MeetingGround {
  const power = (of: Point[], p: Point) => of.reduce((sum, s) => sum + 1 / far(s, p) ** 2, 0);
  const nearest = (of: Point[], p: Point) => Math.min(...of.map((s) => far(s, p)));
  return {
    grid,
    apartDb: over(grid, (p) => gainDb + 10 * Math.log10(power(second, p) / power(first, p))),
    laterS: over(grid, (p) => delayS + (nearest(second, p) - nearest(first, p)) / SPEED),
    first,
    second,
  };
}

it('two alike: equally loud and together in one plane, next to the middle of the audience', () => {
  // as far from both where x is 14
  const [first, second] = [
    { x: 0, y: 6, z: 3 },
    { x: 28, y: 6, z: 3 },
  ];
  const [best] = meetingPlaces(ground([first], [second]));
  expect(best!.at.x).toBeCloseTo(14, 6);
  expect(Math.abs(best!.at.y - 6)).toBeLessThan(grid.step);
  expect(best!.at.z).toBeCloseTo(1.2, 9);
  expect(best!.firstM).toBeCloseTo(best!.secondM, 2);
});

it('a louder one that waits: where the two lines cross', () => {
  // 6 dB more: r2 = 2 r1, on a circle; and later by 2 ms
  const [first, second] = [
    { x: 0, y: 6, z: 1.2 },
    { x: 26, y: 6, z: 1.2 },
  ];
  const places = meetingPlaces(ground([first], [second], 20 * Math.log10(2), 0.002));
  const loud = places.find((p) => p.reason === 'equally loud')!;
  expect(loud.secondM / loud.firstM).toBeCloseTo(2, 2);
  const together = places.find((p) => p.reason === 'together')!;
  expect((together.secondM - together.firstM) / SPEED).toBeCloseTo(-0.002, 4);
});

it('between two hangs: on the plane that is as far from both', () => {
  const hangs = [
    { x: 3, y: 2, z: 5 },
    { x: 3, y: 10, z: 5 },
  ];
  const subs = [{ x: 2, y: 6, z: 0.5 }];
  const places = meetingPlaces(ground(hangs, subs, 1));
  const place = places.find((p) => p.reason === 'equally loud, between two')!;
  expect(far(place.at, hangs[0]!)).toBeCloseTo(far(place.at, hangs[1]!), 2);
  expect(place.at.y).toBeCloseTo(6, 6);
  const level = (of: Point[]) => 10 * Math.log10(of.reduce((sum, s) => sum + 1 / far(s, place.at) ** 2, 0));
  expect(level(subs) + 1).toBeCloseTo(level(hangs), 1);
});

it('no line through the audience, no place', () => {
  const [first, second] = [
    { x: 0, y: 6, z: 3 },
    { x: 1, y: 6, z: 3 },
  ];
  expect(meetingPlaces(ground([first], [second], 60, 0.5))).toEqual([]);
});
