import { expect, it } from 'vitest';
import { boxModes, modePressure } from './index.js';

const size = { x: 5.6, y: 4.1, z: 2.6 };
const c = 343;

it('the lowest modes of a box stand along its sides, half a wave in each', () => {
  const modes = boxModes(size, c, 120);
  expect(modes.slice(0, 2).map((m) => m.order)).toEqual([
    [1, 0, 0],
    [0, 1, 0],
  ]);
  expect(modes[0]!.hz).toBeCloseTo(c / 2 / 5.6, 9);
  expect(modes[1]!.hz).toBeCloseTo(c / 2 / 4.1, 9);
  const of = (order: number[]) => modes.find((m) => m.order.join() === order.join())!.hz;
  expect(of([2, 0, 0])).toBeCloseTo(c / 5.6, 9);
  expect(of([1, 1, 0])).toBeCloseTo(Math.hypot(c / 11.2, c / 8.2), 9);
  expect(of([1, 1, 1])).toBeCloseTo(Math.hypot(c / 11.2, c / 8.2, c / 5.2), 9);
  expect(modes.every((m, i) => i === 0 || m.hz >= modes[i - 1]!.hz)).toBe(true);
});

it('there are as many as theory counts: volume, surface and edges (Maa 1939)', () => {
  const hz = 400;
  const [v, s, l] = [5.6 * 4.1 * 2.6, 2 * (5.6 * 4.1 + 4.1 * 2.6 + 2.6 * 5.6), 4 * (5.6 + 4.1 + 2.6)];
  const k = hz / c;
  const wanted = ((4 * Math.PI) / 3) * v * k ** 3 + (Math.PI / 4) * s * k ** 2 + (l / 8) * k;
  expect(Math.abs(boxModes(size, c, hz).length / wanted - 1)).toBeLessThan(0.02);
});

it('pressure is most in corners, and nothing in the middle of an odd one', () => {
  const [first] = boxModes(size, c, 40);
  expect(modePressure(first!, size, { x: 0, y: 1, z: 1 })).toBe(1);
  expect(modePressure(first!, size, { x: 5.6, y: 2, z: 2 })).toBeCloseTo(-1, 12);
  expect(modePressure(first!, size, { x: 2.8, y: 1, z: 1 })).toBeCloseTo(0, 12);
});

it('refuses what is no box, and more modes than anybody tells apart', () => {
  expect(() => boxModes({ ...size, z: 0 }, c, 100)).toThrow(/side/);
  expect(() => boxModes(size, NaN, 100)).toThrow(/NaN/);
  expect(() => boxModes({ x: 50, y: 40, z: 20 }, c, 1000)).toThrow(/number of modes/);
});
