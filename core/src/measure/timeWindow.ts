import { needAbove, needNumber } from '../limits/index.js';
import { cosineStep, type ImpulseResponse, type RealArray } from '../signal/index.js';

/**
 * A piece of a circular impulse response: `before` samples ahead of index 0, `after` from it on, with raised-cosine
 * ends of 1/8 of either side, so that nothing is cut off hard.
 * @returns samples in single precision, for storage; `zero` = `before`
 * @throws RangeError when the piece is longer than the response
 */
export function cutImpulse(
  circular: RealArray,
  rate: number,
  before: number,
  after: number,
): ImpulseResponse {
  const n = circular.length;
  if (!(before >= 0 && after > 0 && before + after <= n)) {
    throw new RangeError(`cutImpulse: cannot cut ${before} + ${after} samples out of ${n}`);
  }
  const samples = new Float32Array(before + after);
  for (let i = 0; i < samples.length; i++) {
    const t = i - before;
    samples[i] =
      circular[(t + n) % n]! * cosineStep(i, -1, before / 8) * cosineStep(t, after, (after * 7) / 8);
  }
  return { samples, rate, zero: before };
}

/** Left and right side of a time window around a moment, in seconds. */
export interface TimeWindow {
  centreS: number;
  leftS: number;
  rightS: number;
}

/**
 * Impulse response weighted by a window: half Hann from `centre - left` up to 1 at the centre, 1 for the first half of
 * the right side, half Hann down to 0 at `centre + right`. Times count from the response's own zero.
 */
export function windowImpulse(
  { samples, rate, zero }: ImpulseResponse,
  { centreS, leftS, rightS }: TimeWindow,
) {
  needNumber('windowImpulse', 'centre in s', centreS);
  needAbove('windowImpulse', 'left side in s', leftS, 0);
  needAbove('windowImpulse', 'right side in s', rightS, 0);
  const out = new Float32Array(samples.length);
  for (let i = 0; i < out.length; i++) {
    const t = (i - zero) / rate - centreS;
    const weight = t < 0 ? cosineStep(t, -leftS, 0) : cosineStep(t, rightS, rightS / 2);
    out[i] = weight * samples[i]!;
  }
  return { samples: out, rate, zero };
}
