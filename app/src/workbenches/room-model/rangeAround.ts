/** A range with room around what is shown. */
export function rangeAround(values: readonly number[]): { lowDb: number; highDb: number } {
  if (values.length === 0) return { lowDb: 0, highDb: 1 };
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const pad = Math.max(0.1 * (high - low), 0.02 * Math.abs(high), 1e-3);
  return { lowDb: low >= 0 && low < 0.4 * high ? 0 : low - pad, highDb: high + pad };
}
