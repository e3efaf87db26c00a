import { CholeskyDecomposition, Matrix } from 'ml-matrix';

export interface LeastSquaresProblem {
  /** where the search begins; within the bounds */
  start: readonly number[];
  least: readonly number[];
  most: readonly number[];
  /** weighted residuals; as many at every call */
  residuals: (parameters: readonly number[]) => Float64Array;
  /** derivatives of all residuals by each parameter: a column for each */
  jacobian: (parameters: readonly number[]) => Float64Array[];
  rounds?: number;
}

export interface LeastSquares {
  parameters: number[];
  /** sum of the squared residuals */
  sum: number;
  /** inverse of JᵀJ over the parameters that are free; 0 in rows and columns of those that lie at a bound; null where some cannot be told apart */
  inverse: number[][] | null;
  residuals: Float64Array;
  /** whether each lies at one of its bounds */
  atBound: boolean[];
}

const ROUNDS = 60;
/** Less than this part of the sum gained by a step ends the search. */
const SETTLED = 1e-10;

/**
 * Damped least squares within bounds (Levenberg 1944, Marquardt 1963): steps that make it worse are not taken.
 * @throws RangeError where the residuals are not finite at the start
 */
export function leastSquares(problem: LeastSquaresProblem): LeastSquares {
  const { least, most, residuals, rounds = ROUNDS } = problem;
  const held = (p: readonly number[]) => p.map((v, i) => Math.min(most[i]!, Math.max(least[i]!, v)));
  let parameters = held(problem.start);
  let r = residuals(parameters);
  let sum = squares(r);
  if (!Number.isFinite(sum)) throw new RangeError('leastSquares: residuals must be finite at the start');
  let damping = 1e-2;
  for (let round = 0; round < rounds; round++) {
    const { square, slope } = normalEquations(problem.jacobian(parameters), r);
    let gained = 0;
    while (damping < 1e9) {
      const step = solved(square, slope, damping);
      const next = step && held(parameters.map((v, i) => v - step[i]!));
      const tried = next && residuals(next);
      const triedSum = tried ? squares(tried) : Infinity;
      if (triedSum < sum) {
        gained = (sum - triedSum) / sum;
        [parameters, r, sum] = [next!, tried!, triedSum];
        damping = Math.max(1e-9, damping / 8);
        break;
      }
      damping *= 6;
    }
    if (!(gained > SETTLED)) break;
  }
  const atBound = parameters.map(
    (v, i) => v <= least[i]! + 1e-9 * Math.abs(least[i]!) || v >= most[i]! - 1e-9 * Math.abs(most[i]!),
  );
  return { parameters, sum, residuals: r, atBound, inverse: inverseOf(problem, parameters, r, atBound) };
}

const squares = (r: Float64Array) => r.reduce((sum, v) => sum + v * v, 0);

/** Derivatives as central differences over a step. */
export const centralDifferences =
  (residuals: LeastSquaresProblem['residuals'], step: number): LeastSquaresProblem['jacobian'] =>
  (parameters) =>
    parameters.map((v, i) => {
      const at = (by: number) => residuals(parameters.map((p, j) => (j === i ? v + by : p)));
      const [above, below] = [at(step), at(-step)];
      return above.map((a, n) => (a - below[n]!) / (2 * step));
    });

function normalEquations(columns: Float64Array[], r: Float64Array) {
  const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, v, n) => sum + v * b[n]!, 0);
  const square = columns.map((a) => columns.map((b) => dot(a, b)));
  return { square, slope: columns.map((a) => dot(a, r)) };
}

function solved(square: number[][], slope: number[], damping: number): number[] | null {
  const damped = new Matrix(
    square.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-12 : v))),
  );
  const cholesky = new CholeskyDecomposition(damped);
  if (!cholesky.isPositiveDefinite()) return null;
  return cholesky.solve(Matrix.columnVector(slope)).to1DArray();
}

function inverseOf(
  problem: LeastSquaresProblem,
  parameters: readonly number[],
  r: Float64Array,
  atBound: readonly boolean[],
): number[][] | null {
  const columns = problem.jacobian(parameters);
  const free = columns.flatMap((_, i) => (atBound[i] ? [] : [i]));
  const { square } = normalEquations(
    free.map((i) => columns[i]!),
    r,
  );
  // scaled to a diagonal of ones, so that what cannot be told apart shows whatever the units
  const scale = square.map((row, i) => Math.sqrt(row[i]!));
  if (scale.some((s) => !(s > 0))) return null;
  const scaled = new Matrix(square.map((row, i) => row.map((v, j) => v / (scale[i]! * scale[j]!))));
  const cholesky = free.length > 0 ? new CholeskyDecomposition(scaled) : null;
  if (cholesky && !cholesky.isPositiveDefinite()) return null;
  const inverse = cholesky?.solve(Matrix.eye(free.length)).to2DArray() ?? [];
  return columns.map((_, i) =>
    columns.map((_, j) => {
      const [a, b] = [free.indexOf(i), free.indexOf(j)];
      return a < 0 || b < 0 ? 0 : inverse[a]![b]! / (scale[a]! * scale[b]!);
    }),
  );
}
