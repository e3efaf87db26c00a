import { describe, expect, it } from 'vitest';
import type { Corner } from '../geometry/index.js';
import { boxModes, modePressure, planModes, shapeModePressure, shapeModes } from './index.js';

const corners = (...at: [number, number][]): Corner[] => at.map(([x, y]) => ({ x, y }));
const squares = (outline: Corner[], upTo: number) =>
  planModes(outline, upTo).modes.map(({ waveNumber }) => waveNumber ** 2);
/** of frequencies, as squares go with them */
const within = (found: number, truth: number, share: number) =>
  expect(Math.abs(Math.sqrt(found / truth) - 1), `${found} for ${truth}`).toBeLessThan(share);

describe('modes of an outline', () => {
  it('are those of a rectangle, wherever it lies and whichever way round', () => {
    const [a, b] = [5.6, 4.1];
    const outline = corners([2, -3], [2 + a, -3], [2 + a, -3 + b], [2, -3 + b]);
    const truth: number[] = [];
    for (let m = 0; m < 9; m++)
      for (let n = 0; n < 9; n++) truth.push(Math.PI ** 2 * ((m / a) ** 2 + (n / b) ** 2));
    truth.sort((x, y) => x - y);
    for (const found of [squares(outline, 3), squares(outline.toReversed(), 3)]) {
      expect(found.length).toBeGreaterThan(15);
      expect(Math.abs(found[0]!)).toBeLessThan(1e-9);
      found.slice(1).forEach((v, i) => within(v, truth[i + 1]!, 1e-9));
    }
  });

  it('are those of a triangle with equal sides (Lamé)', () => {
    const side = 3;
    const outline = corners([0, 0], [side, 0], [side / 2, (side * Math.sqrt(3)) / 2]);
    const found = squares(outline, 4);
    const step = (16 * Math.PI ** 2) / (9 * side ** 2);
    // m2 + m n + n2: 1 twice, 3 once, 4 twice, 7 twice
    [1, 1, 3, 4, 4, 7, 7].forEach((k, i) => within(found[i + 1]!, k * step, 1e-4));
  });

  it('are those of a circle, of many sides', () => {
    const count = 180;
    const outline = Array.from({ length: count }, (_, i) => ({
      x: Math.cos((2 * Math.PI * i) / count),
      y: Math.sin((2 * Math.PI * i) / count),
    }));
    const found = squares(outline, 5.5);
    // zeros of the derivatives of Bessel functions (Abramowitz and Stegun, table 9.5)
    [1.84118, 1.84118, 3.05424, 3.05424, 3.83171, 4.20119, 4.20119].forEach((zero, i) =>
      within(found[i + 1]!, zero ** 2, 1e-3),
    );
  });

  it('are those of an L, within 1 %, though its inner corner is sharp', () => {
    // Neumann eigenvalues of a square of side 2 without a quarter (Dauge 2003)
    const found = squares(corners([-1, -1], [1, -1], [1, 0], [0, 0], [0, 1], [-1, 1]), 3.5);
    [1.47562182408, 3.53403136678, 9.86960440109, 9.86960440109, 11.3894793979].forEach((truth, i) =>
      within(found[i + 1]!, truth, 0.01),
    );
  });

  it('refuse what encloses nothing', () => {
    expect(() => planModes(corners([0, 0], [1, 1], [2, 2]), 3)).toThrow(RangeError);
    expect(() => planModes(corners([0, 0], [1, NaN], [2, 2]), 3)).toThrow(RangeError);
  });
});

describe('modes of a room with upright walls', () => {
  const size = { x: 5.6, y: 4.1, z: 2.6 };
  const outline = corners([0, 0], [size.x, 0], [size.x, size.y], [0, size.y]);

  it('are those of a box, and so is their pressure', () => {
    const box = boxModes(size, 343, 150);
    const found = shapeModes(outline, size.z, 343, 150);
    expect(found.toHz).toBeCloseTo(150, 9);
    expect(found.list).toHaveLength(box.length);
    box.forEach((mode, i) => {
      expect(found.list[i]!.hz).toBeCloseTo(mode.hz, 6);
      expect(found.list[i]!.upright).toBe(mode.order[2]);
      const at = { x: 1.3, y: 0.7, z: 1.2 };
      expect(Math.abs(shapeModePressure(found, found.list[i]!, at))).toBeCloseTo(
        Math.abs(modePressure(mode, size, at)),
        5,
      );
    });
  });

  it('of a large hall end where they would be too many, which is told', { tags: 'bars' }, () => {
    const found = shapeModes(corners([0, 0], [48, 0], [48, 30], [0, 30]), 12, 343, 200);
    expect(found.toHz).toBeLessThan(200);
    expect(found.list.every(({ hz }) => hz <= found.toHz)).toBe(true);
    const box = boxModes({ x: 48, y: 30, z: 12 }, 343, found.toHz);
    expect(Math.abs(found.list.length - box.length)).toBeLessThan(3);
  });
});
