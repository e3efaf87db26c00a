import { describe, expect, it } from 'vitest';
import { centralDifferences, leastSquares, seededRandom } from './index.js';

const x = Float64Array.from({ length: 40 }, (_, i) => i / 10);
const free = (n: number) => ({
  least: Array<number>(n).fill(-Infinity),
  most: Array<number>(n).fill(Infinity),
});
const problem = (residuals: (p: readonly number[]) => Float64Array, start: number[]) => ({
  start,
  ...free(start.length),
  residuals,
  jacobian: centralDifferences(residuals, 1e-5),
});

describe('damped least squares', () => {
  it('a straight line is that of the normal equations, and so is what its figures are known by', () => {
    const random = seededRandom(2);
    const y = x.map((v) => 3 - 0.7 * v + 0.1 * random.normal());
    const residuals = ([a, b]: readonly number[]) => x.map((v, i) => a! + b! * v - y[i]!);
    const fit = leastSquares(problem(residuals, [0, 0]));
    const n = x.length;
    const [sx, sxx] = [x.reduce((s, v) => s + v, 0), x.reduce((s, v) => s + v * v, 0)];
    const [sy, sxy] = [y.reduce((s, v) => s + v, 0), x.reduce((s, v, i) => s + v * y[i]!, 0)];
    const determinant = n * sxx - sx * sx;
    expect(fit.parameters[1]).toBeCloseTo((n * sxy - sx * sy) / determinant, 8);
    expect(fit.parameters[0]).toBeCloseTo((sxx * sy - sx * sxy) / determinant, 8);
    expect(fit.inverse![1]![1]).toBeCloseTo(n / determinant, 8);
    expect(fit.inverse![0]![1]).toBeCloseTo(-sx / determinant, 8);
  });
  it('finds what is bent, from far away', () => {
    const y = x.map((v) => 5 * Math.exp(-1.3 * v));
    const fit = leastSquares(problem(([a, b]) => x.map((v, i) => a! * Math.exp(b! * v) - y[i]!), [1, 0]));
    expect(fit.parameters[0]).toBeCloseTo(5, 6);
    expect(fit.parameters[1]).toBeCloseTo(-1.3, 6);
    expect(fit.sum).toBeLessThan(1e-10);
  });
  it('stays within its bounds, and says what lies at one', () => {
    const residuals = ([a]: readonly number[]) => x.map((v) => a! - v);
    const fit = leastSquares({ ...problem(residuals, [0]), least: [-1], most: [0.5] });
    expect(fit.parameters).toEqual([0.5]);
    expect(fit.atBound).toEqual([true]);
  });
  it('figures that cannot be told apart have no errors', () => {
    const residuals = ([a, b]: readonly number[]) => x.map((v) => a! + b! - v);
    expect(leastSquares(problem(residuals, [0, 0])).inverse).toBeNull();
  });
  it('refuses a start from which nothing can be found', () => {
    expect(() => leastSquares(problem(() => x.map(() => NaN), [0]))).toThrow(/finite at the start/);
  });
});
