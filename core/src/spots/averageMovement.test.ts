import { expect, it } from 'vitest';
import { logGrid, whiteNoise } from '../signal/index.js';
import { averageMovement } from './index.js';

const grid = logGrid();
const band = { from: 50, to: 10000 };
const flat = grid.map(() => 1);

it('is nothing for equal spots, and unknown for one', () => {
  expect(averageMovement(grid, [flat, flat, flat], band)!.mostDb).toBeCloseTo(0, 12);
  expect(averageMovement(grid, [flat], band)).toBeNull();
});

it('does not count level, only shape', () => {
  const louder = flat.map((v) => 10 * v);
  expect(averageMovement(grid, [flat, louder], band)!.mostDb).toBeCloseTo(0, 9);
});

it('names the spot that moves it most', () => {
  // a peak of 20 dB over one octave at the third of four spots: with it (100 + 3) / 4, without it 1
  const odd = grid.map((f) => (f > 500 && f < 1000 ? 100 : 1));
  const moved = averageMovement(grid, [flat, flat, odd, flat], band)!;
  expect(moved.mostBy).toBe(2);
  const [step, share] = [10 * Math.log10(103 / 4), 1 / Math.log2(200)];
  expect(moved.mostDb).toBeCloseTo(step * Math.sqrt(share * (1 - share)), 0);
  expect(moved.meanDb).toBeLessThan(moved.mostDb);
});

it('falls as spots are added', () => {
  const spot = (seed: number) => {
    const noise = whiteNoise(grid.length, seed);
    return grid.map((_, i) => 10 ** (0.4 * noise[i]!));
  };
  const movement = (n: number) =>
    averageMovement(
      grid,
      Array.from({ length: n }, (_, i) => spot(i + 1)),
      band,
    )!.meanDb;
  expect(movement(11)).toBeLessThan(0.5 * movement(3));
});
