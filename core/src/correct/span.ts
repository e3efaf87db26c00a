import { cosineStep } from '../signal/index.js';

/** Frequency range in which correction acts, Hz. */
export interface Span {
  from: number;
  to: number;
}

/** The soft ends reach this many octaves inward (a third of a narrow span at the most). */
const SOFT_OCTAVES = { narrow: 1 / 5, wide: 1 / 6 };
/** A filter of 8192 taps tells apart what lies 6 Hz from each other; a soft end needs more than twice that. */
const SOFT_HZ = 15;
/** Where a span begins with what can be heard, less will do: what a filter leaks below that moves nothing. */
const LOWEST = { hz: 25, softHz: 8 };
const NARROW_OCTAVES = 3;

/** Whether a span is so narrow, as a subwoofer's, that its soft ends are much of it. */
export const isNarrow = ({ from, to }: Span): boolean => Math.log2(to / from) < NARROW_OCTAVES;

/** Weight of the correction: 1 inside, raised-cosine ends that reach 0 exactly at the span's edges, 0 outside. */
export function spanWeight(frequency: Float64Array, { from, to }: Span): Float64Array {
  if (!(from > 0 && to > from))
    throw new RangeError(`spanWeight: want 0 < from < to, got ${from} and ${to} Hz`);
  const soft = isNarrow({ from, to }) ? SOFT_OCTAVES.narrow : SOFT_OCTAVES.wide;
  const [low, high] = [Math.log2(from), Math.log2(to)];
  const third = (high - low) / 3;
  const softLow = Math.min(
    Math.max(soft, Math.log2(1 + (from < LOWEST.hz ? LOWEST.softHz : SOFT_HZ) / from)),
    third,
  );
  const softHigh = Math.min(Math.max(soft, Math.log2(1 + SOFT_HZ / to)), third);
  return frequency.map((f) => {
    const x = Math.log2(f);
    return f > 0 ? cosineStep(x, low, low + softLow) * cosineStep(x, high, high - softHigh) : 0;
  });
}

/** Mean over a span, every part of an octave counting alike. `frequency` is log-spaced. NaN when no point lies within. */
export function meanInSpan(frequency: Float64Array, values: Float64Array, { from, to }: Span): number {
  let sum = 0;
  let count = 0;
  frequency.forEach((f, i) => {
    if (f < from || f > to || !Number.isFinite(values[i]!)) return;
    sum += values[i]!;
    count++;
  });
  return sum / count;
}

/** RMS distance in dB between two curves over a span, every part of an octave counting alike. */
export const rmsDistance = (frequency: Float64Array, a: Float64Array, b: Float64Array, span: Span): number =>
  Math.sqrt(
    meanInSpan(
      frequency,
      a.map((v, i) => (v - b[i]!) ** 2),
      span,
    ),
  );
