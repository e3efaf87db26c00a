import { describe, expect, it } from 'vitest';
import { cosineStep, hannRise, hannWindow, median } from './index.js';

describe('Hann windows', () => {
  it('overlapped by half add up to one', () => {
    const window = hannWindow(1024);
    for (let i = 0; i < 512; i++) expect(window[i]! + window[i + 512]!).toBeCloseTo(1, 12);
  });

  it('have the mean and the mean square of the closed form: 1/2 and 3/8', () => {
    const window = hannWindow(4096);
    const mean = (of: (v: number) => number) => window.reduce((s, v) => s + of(v), 0) / window.length;
    expect(mean((v) => v)).toBeCloseTo(1 / 2, 12);
    expect(mean((v) => v * v)).toBeCloseTo(3 / 8, 12);
  });

  it('rise from 0 to the flat part that follows, the same as their own first half', () => {
    const rise = hannRise(512);
    expect(rise[0]).toBe(0);
    expect([...rise]).toEqual([...hannWindow(1024).subarray(0, 512)]);
    expect(1 - rise[511]!).toBeLessThan(1e-4);
    expect(hannRise(0)).toHaveLength(0);
  });
});

describe('a raised-cosine step', () => {
  it('is 0 before, 1 after and 1/2 half-way, falling when its ends are exchanged', () => {
    expect([1, 2, 3, 4, 5].map((x) => cosineStep(x, 2, 4))).toEqual([0, 0, expect.closeTo(0.5, 12), 1, 1]);
    expect([1, 2, 3, 4, 5].map((x) => cosineStep(x, 4, 2))).toEqual([1, 1, expect.closeTo(0.5, 12), 0, 0]);
  });

  it('and its mirror image add up to one', () => {
    for (const x of [2.1, 2.7, 3.3, 3.9])
      expect(cosineStep(x, 2, 4) + cosineStep(x, 4, 2)).toBeCloseTo(1, 12);
  });

  it('without width is a jump', () => {
    expect([cosineStep(2.999, 3, 3), cosineStep(3, 3, 3)]).toEqual([0, 1]);
  });
});

it('the middle of a list does not depend on its order, and takes infinities', () => {
  expect(median([5, 1, 3])).toBe(3);
  expect(median([4, 1, 3, 2])).toBe(2);
  expect(median([-Infinity, 7, Infinity])).toBe(7);
  expect(median([])).toBeNaN();
  const list = [3, 1, 2];
  median(list);
  expect(list).toEqual([3, 1, 2]);
});
