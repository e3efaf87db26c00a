import { transferCurve, withoutDelay } from '../live/index.js';
import { delayTrace, fftSizeFor, realFft, type ImpulseResponse } from '../signal/index.js';
import { LIBRARY_GRID, type LibraryCurve } from './libraryCurve.js';
import { withoutMicrophone, type MicrophoneResponse } from './withoutMicrophone.js';

/** Where an impulse response is largest, seconds after its time zero. */
export function peakOf({ samples, rate, zero }: ImpulseResponse): number {
  let peak = 0;
  for (let i = 1; i < samples.length; i++) if (Math.abs(samples[i]!) > Math.abs(samples[peak]!)) peak = i;
  return (peak - zero) / rate;
}

/**
 * An impulse response as a curve of the library: at each point the complex mean of what lies in its 48th of an octave about its peak,
 * since the turns of a long delay would cancel within it; then time zero where the impulse response has it.
 * @param microphone what it reads over the truth; null for nothing
 * @param aboutS in place of its peak, seconds after time zero: of two that are as large, noise decides which one it is
 */
export function curveOfImpulse(
  impulse: ImpulseResponse,
  microphone: MicrophoneResponse | null = null,
  aboutS: number = peakOf(impulse),
): LibraryCurve {
  const { samples, rate, zero } = impulse;
  const size = Math.max(65_536, fftSizeFor(samples.length));
  const spectrum = delayTrace(realFft(samples, size, rate), -aboutS - zero / rate);
  const ones = spectrum.re.map(() => 1);
  const grid = LIBRARY_GRID.filter((f) => f < 0.45 * rate);
  const power = spectrum.re.map((v, k) => v * v + spectrum.im[k]! ** 2);
  const mean = transferCurve({ ...spectrum, reference: ones, measured: power, blocks: 1 }, grid);
  const { re, im } = withoutDelay(mean, -aboutS);
  const curve = { frequency: grid, re, im, coherence: grid.map(() => NaN), hasPhase: true };
  return microphone ? withoutMicrophone(curve, microphone) : curve;
}
