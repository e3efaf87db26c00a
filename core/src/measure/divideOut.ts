import { cosineStep, fftSizeOf, realFft, type ComplexTrace, type ImpulseResponse } from '../signal/index.js';

/** What the interface loses at the ends of the band is not raised by more than this. */
const MOST_GAIN = 4;

/**
 * A spectrum less the response of the interface that recorded it, within 10 Hz to 22 kHz; its level at 1 kHz stays, as the
 * gain of a cable's round trip says nothing of the microphone's.
 * @param own the interface's round trip, time zero at its arrival, at the same rate
 */
export function divideOut(spectrum: ComplexTrace, own: ImpulseResponse): ComplexTrace {
  const size = fftSizeOf(spectrum);
  const shifted = new Float64Array(size);
  own.samples.forEach((v, i) => {
    const at = (i - own.zero + 2 * size) % size;
    shifted[at] = shifted[at]! + v;
  });
  const response = realFft(shifted);
  const bin = own.rate / size;
  const middle = Math.round(1000 / bin);
  const gain = Math.hypot(response.re[middle]!, response.im[middle]!);
  if (!(gain > 0)) throw new RangeError('divideOut: the round trip carries nothing at 1 kHz');
  const [re, im] = [spectrum.re.slice(), spectrum.im.slice()];
  for (let k = 1; k < re.length; k++) {
    const f = k * bin;
    const share = cosineStep(f, 5, 10) * cosineStep(f, Math.min(23500, own.rate / 2), 22000);
    if (share === 0) continue;
    const [a, b] = [response.re[k]! / gain, response.im[k]! / gain];
    const power = Math.max(a * a + b * b, 1 / MOST_GAIN ** 2);
    const [inverseRe, inverseIm] = [1 + share * (a / power - 1), share * (-b / power)];
    const [x, y] = [re[k]!, im[k]!];
    re[k] = x * inverseRe - y * inverseIm;
    im[k] = x * inverseIm + y * inverseRe;
  }
  return { frequency: spectrum.frequency, re, im };
}
