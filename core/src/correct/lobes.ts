/** A stretch of one sign. */
export interface Lobe {
  /** frequency of its highest point, Hz */
  at: number;
  /** at half its height, octaves */
  width: number;
  height: number;
  area: number;
}

/** Stretches of one sign of values over log frequency, the largest area first. */
export function lobes(frequency: Float64Array, values: Float64Array): Lobe[] {
  const out: Lobe[] = [];
  for (let from = 0; from < values.length; from++) {
    const sign = Math.sign(values[from]!);
    if (sign === 0) continue;
    let end = from;
    let top = from;
    let area = 0;
    while (end < values.length && Math.sign(values[end]!) === sign) {
      if (Math.abs(values[end]!) > Math.abs(values[top]!)) top = end;
      area += Math.abs(values[end]!);
      end++;
    }
    let [a, b] = [top, top];
    while (a > from && Math.abs(values[a]!) > Math.abs(values[top]!) / 2) a--;
    while (b < end - 1 && Math.abs(values[b]!) > Math.abs(values[top]!) / 2) b++;
    out.push({
      at: frequency[top]!,
      width: Math.max(1 / 24, Math.log2(frequency[b]! / frequency[a]!)),
      height: values[top]!,
      area,
    });
    from = end - 1;
  }
  return out.sort((a, b) => b.area - a.area);
}
