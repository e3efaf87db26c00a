/** A phase that jumps from one edge of its range to the other is drawn with a gap there, not with a line across. */
export function wrapped(degrees: Float64Array): Float64Array {
  return degrees.map((v, i) => (i > 0 && Math.abs(v - degrees[i - 1]!) > 180 ? NaN : v));
}
