/** Middle of a list, the lower one of two; NaN for none. Infinities sort as they should. */
export function median(values: readonly number[]): number {
  if (values.some(Number.isNaN)) throw new RangeError('median: one of the values is NaN');
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[(sorted.length - 1) >> 1] ?? NaN;
}
