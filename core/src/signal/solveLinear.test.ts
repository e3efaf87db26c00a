import { expect, it } from 'vitest';
import { seededRandom, solveLinear } from './index.js';

it('solves what was made from a known solution, where the first pivot is 0 too', () => {
  const random = seededRandom(3);
  for (const n of [1, 2, 7, 30]) {
    const matrix = Array.from({ length: n }, (_, i) =>
      Float64Array.from({ length: n }, (__, j) => (i === 0 && j === 0 && n > 1 ? 0 : random.normal())),
    );
    const x = Float64Array.from({ length: n }, () => random.normal());
    const right = Float64Array.from(matrix, (row) => row.reduce((sum, v, j) => sum + v * x[j]!, 0));
    solveLinear(matrix, right).forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 8));
  }
});

it('refuses what has no single solution, and shapes that do not fit', () => {
  const one = Float64Array.of(1, 2);
  expect(() => solveLinear([one, Float64Array.of(2, 4)], one)).toThrow(/singular/);
  expect(() => solveLinear([one], one)).toThrow(/1 rows for 2/);
  expect(solveLinear([], new Float64Array(0))).toHaveLength(0);
});
