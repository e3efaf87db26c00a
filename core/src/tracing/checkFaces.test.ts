import { describe, expect, it } from 'vitest';
import { checkFaces } from './index.js';
import { boxFaces, upright } from './roomsForTest.js';

const size = { x: 8, y: 6, z: 3 };
const box = () => boxFaces(size, 0.2, 0.2);
const at = (x: number, y: number, z: number, name = 'one') => ({ name, position: { x, y, z } });
const inside = [at(2, 2, 1.5)];

describe('nothing is wrong', () => {
  it('with a box', () => expect(checkFaces(box(), inside, [at(6, 4, 1.2)])).toEqual([]));
  it('with a room that has a corner into itself', () => {
    const outline = [
      { x: 0, y: 0 },
      { x: 9, y: 0 },
      { x: 9, y: 4 },
      { x: 4, y: 4 },
      { x: 4, y: 8 },
      { x: 0, y: 8 },
    ];
    const faces = upright(outline, 3, () => ({ absorption: 0.2, scattering: 0.2 }));
    expect(checkFaces(faces, inside, [at(2, 7, 1.2), at(8, 1, 1.2)])).toEqual([]);
    // where the outline has its corner it is outside
    expect(checkFaces(faces, inside, [at(7, 6, 1.2, 'out there')])).toEqual([
      { kind: 'outside', what: 'out there', at: { x: 7, y: 6, z: 1.2 } },
    ]);
  });
});

it('finds a hole, how much goes through it, and that it lies where a face is missing', () => {
  const [fault] = checkFaces(box().slice(0, 5), inside, []);
  expect(fault?.kind).toBe('leak');
  expect((fault as { share: number }).share).toBeGreaterThan(0.5);
  // on the side that is open: the ceiling, 3 m up
  expect((fault as { at: { z: number } }).at.z).toBeCloseTo(3, 6);
});

it('finds a slit of a thousandth of a face', () => {
  const faces = box();
  // the ceiling ends 8 mm ahead of the wall
  const ceiling = faces[5]!;
  faces[5] = { ...ceiling, corners: ceiling.corners.map((c) => ({ ...c, x: c.x === 8 ? 7.992 : c.x })) };
  const faults = checkFaces(faces, inside, []);
  expect(faults.map((f) => f.kind)).toEqual(['leak']);
  expect((faults[0] as { share: number }).share).toBeLessThan(0.02);
});

it('finds faces that are warped, tiny or doubled', () => {
  const faces = box();
  const floor = faces[4]!;
  const warped = { ...floor, corners: floor.corners.map((c, i) => (i === 0 ? { ...c, z: c.z + 0.2 } : c)) };
  // a corner off its plane by d lies d / 4 off the plane through the middle of all four, as do the others
  const found = checkFaces([warped, ...faces.filter((f) => f !== floor)], inside, []);
  const fault = found.find((f) => f.kind === 'warped');
  expect(fault).toMatchObject({ face: 0 });
  expect((fault as { byM: number }).byM).toBeCloseTo(0.05, 2);

  const speck = {
    ...floor,
    corners: floor.corners.map((c) => ({ x: 1 + c.x / 1e4, y: 1 + c.y / 1e4, z: 1 })),
  };
  expect(checkFaces([...faces, speck], inside, [])).toMatchObject([{ kind: 'tiny', face: 6 }]);

  const again = { ...floor, corners: floor.corners.toReversed() };
  expect(checkFaces([...faces, again], inside, [])).toMatchObject([{ kind: 'doubled', face: 6, other: 4 }]);
});

describe('faces that lie on each other in part', () => {
  const carpet = (x: number, z: number) => ({
    ...box()[4]!,
    corners: [
      { x, y: 2, z },
      { x: x + 2, y: 2, z },
      { x: x + 2, y: 5, z },
      { x, y: 5, z },
    ],
  });

  it('are found, told by the one that is covered most, with how much of it', () => {
    const [on] = checkFaces([...box(), carpet(3, 0)], inside, []);
    expect(on).toMatchObject({ kind: 'overlapping', face: 6, other: 4, share: 1 });
    // half of it reaches out under the wall
    const half = checkFaces([...box(), carpet(7, 1e-4)], inside, []).find((f) => f.kind === 'overlapping');
    expect(half).toMatchObject({ face: 6, other: 4 });
    expect((half as { share: number }).share).toBeGreaterThan(0.25);
    expect((half as { share: number }).share).toBeLessThan(0.75);
    expect((half as { at: { x: number } }).at.x).toBeLessThan(8);
  });

  it('are none where they only touch, stand on each other, or lie a centimetre apart', () => {
    const floor = box()[4]!;
    const parts = [0, 4].map((x) => ({
      ...floor,
      corners: [
        { x, y: 0, z: 0 },
        { x: x + 4, y: 0, z: 0 },
        { x: x + 4, y: 6, z: 0 },
        { x, y: 6, z: 0 },
      ],
    }));
    const screen = {
      ...floor,
      corners: [
        { x: 3, y: 2, z: 0 },
        { x: 5, y: 2, z: 0 },
        { x: 5, y: 2, z: 1.5 },
        { x: 3, y: 2, z: 1.5 },
      ],
    };
    const whole = [...box().filter((_, i) => i !== 4), ...parts, screen, carpet(3, 0.01)];
    expect(checkFaces(whole, inside, []).filter((f) => f.kind === 'overlapping')).toEqual([]);
  });
});

it('finds who stands outside, or in a wall', () => {
  expect(checkFaces(box(), [at(9, 2, 1, 'the talker')], [at(4, 2, 1.2)])).toEqual([
    { kind: 'outside', what: 'the talker', at: { x: 9, y: 2, z: 1 } },
  ]);
  expect(checkFaces(box(), inside, [at(7.995, 2, 1, 'seat 3')])).toMatchObject([
    { kind: 'in a wall', what: 'seat 3', face: 1 },
  ]);
});
