import { expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { responseOnGrid } from './index.js';

it('gives a delayed, inverted, halved impulse its level and phase, counted from its zero', () => {
  const samples = new Float32Array(4096);
  const zero = 960;
  samples[zero + 48] = -0.5; // 1 ms after zero
  const grid = logGrid(20, 20000, 12);
  const { levelDb, phaseDeg } = responseOnGrid({ samples, rate: 48000, zero }, grid);
  grid.forEach((f, i) => {
    expect(levelDb[i]).toBeCloseTo(-6.0206, 3);
    const want = 180 - 360 * f * 0.001;
    const off = ((((phaseDeg[i]! - want) % 360) + 540) % 360) - 180;
    expect(Math.abs(off)).toBeLessThan(0.1);
  });
});
