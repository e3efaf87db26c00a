import { dbOfPower, powerOf, type ComplexTrace } from '../signal/index.js';

/** Both are in the shared band where neither is louder than the other by more. */
export const SHARED_DB = 10;

export interface Summation {
  /** mean over the points of the sum efficiency in the shared band, 0 to 1; null where there is none */
  efficiency: number | null;
  /** the shared band over all points, Hz; null where there is none */
  band: { from: number; to: number } | null;
}

/**
 * How well two sources add up: |a + b| / (|a| + |b|) over the band where both are within 10 dB of each other, its mean
 * on the frequency axis of the traces (a logarithmic one), weighted by how equal they are, mean over the points.
 * @param a @param b one trace for each point, in the same order
 */
export function summationOf(a: ComplexTrace[], b: ComplexTrace[]): Summation {
  let [sum, weights] = [0, 0];
  let [from, to] = [Infinity, 0];
  a.forEach((one, point) => {
    const other = b[point]!;
    for (let k = 0; k < one.re.length; k++) {
      const [ar, ai, br, bi] = [one.re[k]!, one.im[k]!, other.re[k]!, other.im[k]!];
      const [x, y] = [Math.hypot(ar, ai), Math.hypot(br, bi)];
      const apartDb = Math.abs(20 * Math.log10(x / y));
      if (!(apartDb <= SHARED_DB)) continue;
      const weight = 1 - apartDb / SHARED_DB;
      sum += (weight * Math.hypot(ar + br, ai + bi)) / (x + y);
      weights += weight;
      from = Math.min(from, one.frequency[k]!);
      to = Math.max(to, one.frequency[k]!);
    }
  });
  return weights > 0 ? { efficiency: sum / weights, band: { from, to } } : { efficiency: null, band: null };
}

/** Power average over traces, dB. */
export function averageLevel(traces: ComplexTrace[]): Float64Array {
  const sum = powerOf(traces[0]!);
  for (const trace of traces.slice(1)) powerOf(trace).forEach((p, k) => (sum[k] = sum[k]! + p));
  return sum.map((p) => dbOfPower(p / traces.length));
}

/** How much louder traces are than others, their power averages held against each other: mean over a band, dB. */
export function levelApart(
  traces: ComplexTrace[],
  others: ComplexTrace[],
  band: { from: number; to: number },
): number {
  const [a, b] = [averageLevel(traces), averageLevel(others)];
  const inBand = [...traces[0]!.frequency].flatMap((f, k) =>
    f >= band.from && f <= band.to ? [a[k]! - b[k]!] : [],
  );
  return inBand.reduce((sum, v) => sum + v, 0) / inBand.length;
}
