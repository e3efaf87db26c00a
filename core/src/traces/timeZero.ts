import { needFinite } from '../limits/index.js';
import type { RealArray } from '../signal/index.js';

/** Where time zero of an impulse response that comes from elsewhere is put. */
export type TimeZero =
  | { by: 'beginning' }
  /** where it first comes within 20 dB of its peak */
  | { by: 'onset' }
  | { by: 'peak' }
  /** so long after its beginning */
  | { by: 'hand'; seconds: number };

/** An onset is where a response first comes so near its peak, dB. */
const ONSET_DB = -20;

/** Index of the sample of time zero. @throws RangeError for what is no number */
export function timeZeroOf(samples: RealArray, rate: number, zero: TimeZero): number {
  needFinite('timeZeroOf', 'samples', samples);
  if (zero.by === 'beginning') return 0;
  if (zero.by === 'hand') return Math.max(0, Math.min(samples.length - 1, Math.round(zero.seconds * rate)));
  let peak = 0;
  for (let i = 1; i < samples.length; i++) if (Math.abs(samples[i]!) > Math.abs(samples[peak]!)) peak = i;
  if (zero.by === 'peak') return peak;
  const enough = Math.abs(samples[peak]!) * 10 ** (ONSET_DB / 20);
  let onset = 0;
  while (onset < peak && Math.abs(samples[onset]!) < enough) onset++;
  return onset;
}
