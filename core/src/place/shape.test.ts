import { describe, expect, it } from 'vitest';
import {
  boxWalls,
  extentOf,
  facetArea,
  facetsOf,
  floorAt,
  plainFace,
  rectangle,
  roofAt,
  shapeVolume,
  type Shape,
} from './index.js';

const face = (name: string) => plainFace(name, [0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1]);
const shape = (over: Partial<Shape> = {}): Shape => {
  const outline = over.outline ?? rectangle(24, 13);
  return {
    outline,
    heightM: 5,
    floorRise: 0,
    isEnclosed: true,
    ceiling: { kind: 'flat' },
    walls: outline.map((_, i) => face(`Wall ${i + 1}`)),
    floor: face('Floor'),
    roof: face('Roof'),
    ...over,
  };
};
const areas = (s: Shape, kind: string) =>
  facetsOf(s)
    .filter((f) => f.kind === kind)
    .map(facetArea);
const total = (values: number[]) => values.reduce((a, b) => a + b, 0);

describe('a box', () => {
  it('has the volume and the faces of its three numbers', () => {
    expect(shapeVolume(shape())).toBeCloseTo(24 * 13 * 5, 9);
    expect(areas(shape(), 'wall')).toEqual([120, 65, 120, 65]);
    expect(areas(shape(), 'roof')).toEqual([312]);
    expect(extentOf(shape()).most).toEqual({ x: 24, y: 13, z: 5 });
  });

  it('is told from what is none, whichever way its corners go', () => {
    const walls = boxWalls(shape())!;
    expect([walls.least.y.name, walls.most.x.name, walls.most.y.name, walls.least.x.name]).toEqual([
      'Wall 1',
      'Wall 2',
      'Wall 3',
      'Wall 4',
    ]);
    const turned = rectangle(24, 13).reverse();
    expect(boxWalls(shape({ outline: turned }))!.most.y.name).toBe('Wall 1');
    expect(boxWalls(shape({ floorRise: 0.01 }))).toBeNull();
    expect(boxWalls(shape({ isEnclosed: false }))).toBeNull();
    expect(boxWalls(shape({ outline: [...rectangle(4, 4).slice(0, 3), { x: 1, y: 4 }] }))).toBeNull();
  });
});

describe('a ridged hall', () => {
  const hall = shape({ ceiling: { kind: 'ridged', along: 'x', highM: 8.5 } });

  it('has the volume of box and prism', () => {
    expect(shapeVolume(hall)).toBeCloseTo(24 * 13 * 5 + (24 * 13 * 3.5) / 2, 9);
    expect(roofAt(hall, { x: 3, y: 6.5 })).toBeCloseTo(8.5, 12);
    expect(roofAt(hall, { x: 20, y: 13 })).toBeCloseTo(5, 12);
    expect(roofAt(hall, { x: 20, y: 3.25 })).toBeCloseTo(6.75, 12);
  });

  it('has gables at the ends of the ridge and two slopes', () => {
    const [left, rear, right, front] = areas(hall, 'wall');
    expect([left, right]).toEqual([120, 120]);
    for (const gable of [rear, front]) expect(gable).toBeCloseTo(65 + (13 * 3.5) / 2, 9);
    const slope = 24 * Math.hypot(6.5, 3.5);
    for (const roof of areas(hall, 'roof')) expect(roof).toBeCloseTo(slope, 9);
  });

  it('loses what its floor rises', () => {
    const raked = { ...hall, floorRise: 0.05 };
    expect(floorAt(raked, { x: 10, y: 2 })).toBeCloseTo(0.5, 12);
    expect(shapeVolume(raked)).toBeCloseTo(shapeVolume(hall) - 24 * 13 * 0.6, 9);
    expect(areas(raked, 'floor')[0]).toBeCloseTo(312 * Math.hypot(1, 0.05), 9);
    expect(areas(raked, 'wall')[1]).toBeCloseTo(65 + (13 * 3.5) / 2 - 13 * 1.2, 9);
  });
});

describe('an L under a pitched roof', () => {
  // 6 x 2 and 2 x 4, rising along y from 3 m to 6 m
  const outline = [
    { x: 0, y: 0 },
    { x: 6, y: 0 },
    { x: 6, y: 2 },
    { x: 2, y: 2 },
    { x: 2, y: 6 },
    { x: 0, y: 6 },
  ];
  const ell = shape({ outline, heightM: 3, ceiling: { kind: 'pitched', along: 'y', highM: 6 } });

  it('has the volume of its two parts at their middle heights', () => {
    expect(shapeVolume(ell)).toBeCloseTo(12 * 3.5 + 8 * 5, 9);
    const flat = { ...ell, outline: [...outline].reverse() };
    expect(shapeVolume(flat)).toBeCloseTo(12 * 3.5 + 8 * 5, 9);
  });

  it('has walls up to the roof, and a roof as large as the slope asks', () => {
    expect(areas(ell, 'wall')).toEqual([18, 7, 16, 20, 12, 27]);
    expect(total(areas(ell, 'roof'))).toBeCloseTo(20 * Math.hypot(1, 0.5), 9);
  });

  it('under a ridge that its notch meets: the parts are still right', () => {
    // ridge along x at y = 3: heights 3 m at the walls, 6 m there
    const ridged = shape({ outline, heightM: 3, ceiling: { kind: 'ridged', along: 'x', highM: 6 } });
    // below y = 3: 6 x 2 at 4 m in the middle, 2 x 1 at 5.5 m; above: 2 x 3 at 4.5 m
    expect(shapeVolume(ridged)).toBeCloseTo(12 * 4 + 2 * 5.5 + 6 * 4.5, 9);
  });
});

it('outdoors there is a floor only', () => {
  expect(facetsOf(shape({ isEnclosed: false })).map((f) => f.kind)).toEqual(['floor']);
});
