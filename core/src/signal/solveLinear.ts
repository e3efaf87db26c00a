import { LuDecomposition, Matrix } from 'ml-matrix';

/**
 * Solution x of A x = b, by LU decomposition with pivots.
 * @param matrix rows of A, square
 * @throws RangeError when the shapes differ or A is singular
 */
export function solveLinear(matrix: ArrayLike<number>[], right: ArrayLike<number>): Float64Array {
  const n = right.length;
  if (matrix.length !== n || matrix.some((row) => row.length !== n))
    throw new RangeError(`solveLinear: ${matrix.length} rows for ${n} values`);
  if (n === 0) return new Float64Array(0);
  const decomposed = new LuDecomposition(new Matrix(matrix.map((row) => Array.from(row))));
  if (decomposed.isSingular()) throw new RangeError('solveLinear: the matrix is singular');
  return Float64Array.from(decomposed.solve(Matrix.columnVector(Array.from(right))).getColumn(0));
}
