import { transferCurve, withoutDelay } from '../live/index.js';
import { delayTrace, fftSizeFor, realFft, type ImpulseResponse } from '../signal/index.js';
import { LIBRARY_GRID, type LibraryCurve } from './libraryCurve.js';
import { withoutMicrophone, type MicrophoneResponse } from './withoutMicrophone.js';

/**
 * An impulse response as a curve of the library: at each point the complex mean of what lies in its 48th of an octave about its peak,
 * since the turns of a long delay would cancel within it; then time zero where the impulse response has it.
 * @param microphone what it reads over the truth; null for nothing
 */
export function curveOfImpulse(
  { samples, rate, zero }: ImpulseResponse,
  microphone: MicrophoneResponse | null = null,
): LibraryCurve {
  const size = Math.max(65_536, fftSizeFor(samples.length));
  let peak = 0;
  for (let i = 1; i < samples.length; i++) if (Math.abs(samples[i]!) > Math.abs(samples[peak]!)) peak = i;
  const spectrum = delayTrace(realFft(samples, size, rate), -peak / rate);
  const ones = spectrum.re.map(() => 1);
  const grid = LIBRARY_GRID.filter((f) => f < 0.45 * rate);
  const power = spectrum.re.map((v, k) => v * v + spectrum.im[k]! ** 2);
  const mean = transferCurve({ ...spectrum, reference: ones, measured: power, blocks: 1 }, grid);
  const { re, im } = withoutDelay(mean, (zero - peak) / rate);
  const curve = { frequency: grid, re, im, coherence: grid.map(() => NaN), hasPhase: true };
  return microphone ? withoutMicrophone(curve, microphone) : curve;
}
