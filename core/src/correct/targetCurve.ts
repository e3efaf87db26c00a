/** A handle of the target curve. */
export interface TargetHandle {
  frequency: number;
  levelDb: number;
}

/**
 * Target level through handles: monotone cubic over log frequency (Fritsch and Carlson 1980), so that it never
 * overshoots between two handles; flat beyond the outer ones.
 * @param handles at least one, in any order, no two at one frequency
 * @returns dB at each of `frequency`
 * @throws RangeError when handles are missing, doubled or not finite
 */
export function targetCurve(handles: TargetHandle[], frequency: Float64Array): Float64Array {
  const sorted = [...handles].sort((a, b) => a.frequency - b.frequency);
  const n = sorted.length;
  if (n === 0) throw new RangeError('targetCurve: needs at least one handle');
  const x = sorted.map((h) => Math.log(h.frequency));
  const y = sorted.map((h) => h.levelDb);
  sorted.forEach((h, i) => {
    if (!(h.frequency > 0) || !Number.isFinite(h.levelDb)) {
      throw new RangeError(`targetCurve: handle at ${h.frequency} Hz, ${h.levelDb} dB is not usable`);
    }
    if (i > 0 && !(x[i]! > x[i - 1]!)) throw new RangeError(`targetCurve: two handles at ${h.frequency} Hz`);
  });
  const secant = x.slice(1).map((xi, i) => (y[i + 1]! - y[i]!) / (xi - x[i]!));
  const slope = x.map((_, i) => {
    const [before, after] = [secant[i - 1], secant[i]];
    if (before === undefined || after === undefined || before * after <= 0) return 0;
    // weighted harmonic mean (Fritsch and Butland 1984): within the monotone region
    const [left, right] = [x[i]! - x[i - 1]!, x[i + 1]! - x[i]!];
    return (3 * (left + right)) / ((2 * right + left) / before + (right + 2 * left) / after);
  });
  let i = 0;
  return Float64Array.from(frequency, (f) => {
    const at = Math.log(f);
    if (!(at > x[0]!)) return y[0]!;
    if (at >= x[n - 1]!) return y[n - 1]!;
    if (x[i]! > at) i = 0;
    while (x[i + 1]! <= at) i++;
    const h = x[i + 1]! - x[i]!;
    const t = (at - x[i]!) / h;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * y[i]! +
      (t3 - 2 * t2 + t) * h * slope[i]! +
      (3 * t2 - 2 * t3) * y[i + 1]! +
      (t3 - t2) * h * slope[i + 1]!
    );
  });
}
