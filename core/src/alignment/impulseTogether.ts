import { needAbove } from '../limits/index.js';
import { delayTrace, fftSizeFor, inverseRealFft, realFft, type ImpulseResponse } from '../signal/index.js';
import { asSet, RINGS_S, together, type SourceSetting } from './sourceSetting.js';

/**
 * Impulse responses that were measured one by one, as they add up when each is set: what would be measured of all together, sample by sample.
 * @param parts one or more, at one rate, with delays that can be played
 * @returns as long as all of them need, with one time zero
 * @throws RangeError for none, unlike rates, or a delay below 0
 */
export function impulseTogether(
  parts: readonly { impulse: ImpulseResponse; as: SourceSetting }[],
): ImpulseResponse {
  const [first] = parts;
  if (!first) throw new RangeError('impulseTogether: there is no impulse response');
  const { rate } = first.impulse;
  needAbove('impulseTogether', 'rate', rate, 0);
  for (const { impulse, as } of parts) {
    if (impulse.rate !== rate)
      throw new RangeError(`impulseTogether: rates of ${rate} Hz and ${impulse.rate} Hz`);
    if (!(as.delayS >= 0))
      throw new RangeError(`impulseTogether: a delay of ${as.delayS} s cannot be played`);
  }
  const zero = Math.max(...parts.map(({ impulse }) => impulse.zero));
  const length = Math.max(
    ...parts.map(({ impulse, as }) =>
      Math.ceil(impulse.samples.length + zero - impulse.zero + (as.delayS + RINGS_S) * rate),
    ),
  );
  const size = fftSizeFor(length);
  const sum = together(
    parts.map(({ impulse, as }) =>
      asSet(delayTrace(realFft(impulse.samples, size, rate), (zero - impulse.zero) / rate), as),
    ),
  );
  return { samples: Float32Array.from(inverseRealFft(sum).subarray(0, length)), rate, zero };
}

/**
 * By how much one measurement of the same sound comes later than another one, by the largest value of their cross-correlation,
 * each from its own time zero.
 * @returns seconds, in whole samples
 * @throws RangeError for unlike rates
 */
export function laterBy(one: ImpulseResponse, other: ImpulseResponse): number {
  if (one.rate !== other.rate) throw new RangeError(`laterBy: rates of ${one.rate} Hz and ${other.rate} Hz`);
  const size = fftSizeFor(one.samples.length + other.samples.length);
  const [a, b] = [realFft(one.samples, size), realFft(other.samples, size)];
  const product = {
    re: b.re.map((v, k) => v * a.re[k]! + b.im[k]! * a.im[k]!),
    im: b.im.map((v, k) => v * a.re[k]! - b.re[k]! * a.im[k]!),
  };
  const correlation = inverseRealFft(product);
  let top = 0;
  correlation.forEach((v, i) => {
    if (v > correlation[top]!) top = i;
  });
  const lag = top < size / 2 ? top : top - size;
  return (lag - (other.zero - one.zero)) / one.rate;
}
