import type { ImpulseResponse } from '../signal/index.js';

/** When and how a response begins. Times in seconds from its zero. */
export interface Arrival {
  /** first sample within 20 dB of the largest (ISO 3382-1:2009, A.3) */
  onsetS: number;
  peakS: number;
  /** the largest sample, signed */
  peak: number;
}

/** Onset and peak of a response; null when it is all zeros. */
export function findArrival({ samples, rate, zero }: ImpulseResponse): Arrival | null {
  let at = 0;
  for (let i = 1; i < samples.length; i++) if (Math.abs(samples[i]!) > Math.abs(samples[at]!)) at = i;
  const peak = samples[at] ?? 0;
  if (!(Math.abs(peak) > 0)) return null;
  let onset = 0;
  while (Math.abs(samples[onset]!) < Math.abs(peak) * 0.1) onset++;
  return { onsetS: (onset - zero) / rate, peakS: (at - zero) / rate, peak };
}
