import {
  delaySpectrum,
  fftSizeFor,
  inverseRealFft,
  multiplySpectra,
  realFft,
  type ImpulseResponse,
} from '../signal/index.js';
import { outputSpectrum, type OutputSettings } from './settings.js';

/** Room for what delays and sections add. */
const TAIL_S = 0.05;

/**
 * What several sources make together at one place: the sum of their responses, each through settings of its own.
 * @throws RangeError without parts, or for differing rates
 */
export function sumImpulses(
  parts: { impulse: ImpulseResponse; settings: OutputSettings }[],
): ImpulseResponse {
  const first = parts[0]?.impulse;
  if (!first || parts.some((p) => p.impulse.rate !== first.rate))
    throw new RangeError('sumImpulses: wants at least one response, all at one rate');
  const { rate } = first;
  const zero = Math.max(...parts.map((p) => p.impulse.zero));
  const longest = Math.max(
    ...parts.map(
      (p) => p.impulse.samples.length + zero - p.impulse.zero + (p.settings.delayMs / 1000) * rate,
    ),
  );
  const length = Math.ceil(longest + TAIL_S * rate);
  const size = fftSizeFor(length);
  const [re, im] = [new Float64Array(size / 2 + 1), new Float64Array(size / 2 + 1)];
  for (const { impulse, settings } of parts) {
    const own = multiplySpectra(realFft(impulse.samples, size), outputSpectrum(settings, null, size, rate));
    const placed = delaySpectrum(own, zero - impulse.zero);
    for (let k = 0; k < re.length; k++) {
      re[k] = re[k]! + placed.re[k]!;
      im[k] = im[k]! + placed.im[k]!;
    }
  }
  return { samples: inverseRealFft({ size, re, im }).slice(0, length), rate, zero };
}
