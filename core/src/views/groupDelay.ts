import {
  binFrequencies,
  fftSizeFor,
  fftSizeOf,
  FINE_SIZE,
  gainOfDb,
  inverseRealFft,
  minimumPhaseOfLog,
  powerOf,
  realFft,
  smoothPower,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';
import { continueLows } from '../measure/index.js';

/** Deeper notches than this below the loudest bin are not followed by the minimum phase. */
const FLOOR_DB = -120;

const sizeFor = ({ samples }: ImpulseResponse) => fftSizeFor(Math.max(2 * samples.length, FINE_SIZE));

/**
 * Group delay of each bin times its power, and that power: Re(conj(H) FT{n h}) = delay |H|^2 (Oppenheim and Schafer, 5.1).
 * Weighted so, it can be averaged over frequency without the spikes that lie in notches.
 */
function weightedDelay(
  signal: Float64Array,
  size: number,
  zero: number,
): { product: Float64Array; power: Float64Array } {
  const h = realFft(signal, size);
  const nh = realFft(
    signal.map((v, i) => v * (i - zero)),
    size,
  );
  return { product: h.re.map((re, k) => re * nh.re[k]! + h.im[k]! * nh.im[k]!), power: powerOf(h) };
}

/** A delay averaged over 1/`fraction` octave, weighted by power. Seconds. */
function averaged(
  { product, power }: { product: Float64Array; power: Float64Array },
  { size, rate, grid, fraction }: { size: number; rate: number; grid: Float64Array; fraction: number },
): Float64Array {
  const bins = binFrequencies(size, rate);
  const delays = smoothPower(bins, product, fraction, grid);
  const weights = smoothPower(bins, power, fraction, grid);
  return delays.map((d, i) => d / weights[i]! / rate);
}

/**
 * Group delay from the response's zero, averaged over 1/`fraction` octave with its power as weight.
 * @returns seconds at the frequencies of `grid` (Hz)
 */
export function groupDelay(impulse: ImpulseResponse, grid: Float64Array, fraction = 24): Float64Array {
  const size = sizeFor(impulse);
  const { samples, rate, zero } = impulse;
  return averaged(weightedDelay(Float64Array.from(samples), size, zero), { size, rate, grid, fraction });
}

/** The minimum-phase response of the same magnitude, time zero at index 0. */
export function minimumPhaseOf(impulse: ImpulseResponse): { samples: Float64Array; spectrum: ComplexTrace } {
  const spectrum = realFft(impulse.samples, sizeFor(impulse));
  const power = powerOf(spectrum);
  const lows = continueLows(power, impulse.rate / fftSizeOf(spectrum), gainOfDb(FLOOR_DB));
  if (!lows) throw new RangeError('minimumPhaseOf: a response of zeros has no phase');
  const minimum = minimumPhaseOfLog(lows.logMagnitude);
  return { samples: inverseRealFft(minimum), spectrum: minimum };
}

/**
 * Excess group delay: what the group delay exceeds that of the minimum-phase response with the same magnitude by; a plain
 * delay and the delay of all-passes (Preis 1982).
 * @returns seconds at the frequencies of `grid`
 */
export function excessGroupDelay(impulse: ImpulseResponse, grid: Float64Array, fraction = 24): Float64Array {
  const { rate } = impulse;
  const size = sizeFor(impulse);
  const all = groupDelay(impulse, grid, fraction);
  const least = averaged(weightedDelay(minimumPhaseOf(impulse).samples, size, 0), {
    size,
    rate,
    grid,
    fraction,
  });
  return all.map((d, i) => d - least[i]!);
}

/**
 * Phase with a delay taken off, not wrapped: followed from bin to bin upwards.
 * @param delayS seconds after the response's zero that count as no delay
 * @returns degrees at the frequencies of `grid`; a whole number of turns is taken off so that `anchorHz` lies within -180 to 180
 */
export function unwrappedPhase(
  { samples, rate, zero }: ImpulseResponse,
  grid: Float64Array,
  delayS: number,
  anchorHz = 1000,
): Float64Array {
  const size = fftSizeFor(Math.max(samples.length, FINE_SIZE));
  const { re, im } = realFft(samples, size);
  const shift = (2 * Math.PI * (zero + delayS * rate)) / size;
  const phase = new Float64Array(re.length);
  for (let k = 1; k < phase.length; k++) {
    const here = Math.atan2(im[k]!, re[k]!) + shift * k;
    const step = here - phase[k - 1]!;
    phase[k] = phase[k - 1]! + step - 2 * Math.PI * Math.round(step / (2 * Math.PI));
  }
  const at = (f: number) => {
    const x = Math.min((f * size) / rate, phase.length - 1.001);
    const k = Math.floor(x);
    return ((phase[k]! + (x - k) * (phase[k + 1]! - phase[k]!)) * 180) / Math.PI;
  };
  const turns = 360 * Math.round(at(anchorHz) / 360);
  return grid.map((f) => at(f) - turns);
}
