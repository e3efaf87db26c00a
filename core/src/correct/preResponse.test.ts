import { expect, it } from 'vitest';
import { mainTap, preResponseDb } from './index.js';

it('finds the loudest tap beyond a time ahead of the main one', () => {
  const fir = new Float32Array(1000);
  fir[600] = -2;
  fir[595] = 0.2; // 5 ms ahead at 1 kHz
  fir[580] = 0.02; // 20 ms
  fir[700] = 1; // after it: does not count
  expect(mainTap(fir)).toBe(600);
  expect(preResponseDb(fir, 1000, 0.001)).toBeCloseTo(-20, 5);
  expect(preResponseDb(fir, 1000, 0.01)).toBeCloseTo(-40, 5);
  expect(preResponseDb(fir, 1000, 0.05)).toBe(-Infinity);
  expect(preResponseDb(new Float32Array(0), 1000, 0)).toBe(-Infinity);
});
