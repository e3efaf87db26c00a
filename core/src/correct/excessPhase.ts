import { fineSpectrum } from '../path/index.js';
import { continueLows } from '../measure/index.js';
import { fftSizeOf, minimumPhaseOfLog, type ComplexTrace, type ImpulseResponse } from '../signal/index.js';

/** Only the lows are looked at, up to 1/16 of the rate (3 kHz at 48 kHz): above, reflections overlap and nobody corrects phase. */
const SHARE = 16;
/** Deeper notches than this below the loudest bin are not followed by the minimum phase. */
const FLOOR = 1e-4;
/** A dip's turn is taken over this much to either side, in octaves. */
const REACH_OCTAVES = 1 / 12;
/** A zero outside the unit circle turns the excess phase by 360 degrees; one well inside by none. */
const TURNED = 0.7 * Math.PI;

/**
 * Excess phase of a response: its phase less that of the minimum-phase response of the same magnitude (Oppenheim and
 * Schafer, 5.6), its delay (power-weighted mean) taken off, unwrapped within the band, whole turns about its mean taken off. An inverted
 * loudspeaker has half a turn more at all frequencies.
 * @returns radians at the frequencies of `grid` (Hz), NaN above 1/17 of the rate and below what was measured
 */
export function excessPhase(
  impulse: ImpulseResponse,
  grid: Float64Array,
  spectrum: ComplexTrace = fineSpectrum(impulse),
): Float64Array {
  const { rate } = impulse;
  const { re, im } = spectrum;
  const size = fftSizeOf(spectrum);
  const top = size / SHARE;
  const power = new Float64Array(top + 1);
  for (let k = 0; k <= top; k++) power[k] = re[k]! ** 2 + im[k]! ** 2;
  const lows = continueLows(power, rate / size, FLOOR);
  if (!lows) return grid.map(() => NaN);
  const least = minimumPhaseOfLog(lows.logMagnitude);
  const first = Math.max(1, Math.ceil((lows.fromHz * size) / rate));
  // E = H / H_min, its angle, and how far it turns from bin to bin
  const angle = new Float64Array(top + 1);
  const weight = new Float64Array(top + 1);
  let [sumRe, sumIm] = [0, 0];
  let [pr, pi] = [0, 0];
  for (let k = first; k <= top; k++) {
    const [lr, li] = [least.re[k]!, least.im[k]!];
    const [er, ei] = [re[k]! * lr + im[k]! * li, im[k]! * lr - re[k]! * li];
    angle[k] = Math.atan2(ei, er);
    weight[k] = Math.hypot(er, ei);
    sumRe += er * pr + ei * pi;
    sumIm += ei * pr - er * pi;
    [pr, pi] = [er, ei];
  }
  const mean = Math.atan2(sumIm, sumRe);
  // what is left with the delay taken off: known but for whole turns at every bin, and those by following it from its first
  const phase = new Float64Array(top + 1);
  let [sum, all] = [0, 0];
  for (let k = first; k <= top; k++) {
    const own = angle[k]! - mean * k;
    const before = k === first ? 0 : phase[k - 1]!;
    phase[k] = own - 2 * Math.PI * Math.round((own - before) / (2 * Math.PI));
    sum += weight[k]! * phase[k]!;
    all += weight[k]!;
  }
  const turns = 2 * Math.PI * Math.round(sum / all / (2 * Math.PI));
  const last = rate / (SHARE + 1);
  return grid.map((f) => {
    const x = (f * size) / rate;
    const k = Math.floor(x);
    return f > last || k < first ? NaN : phase[k]! + (x - k) * (phase[k + 1]! - phase[k]!) - turns;
  });
}

/**
 * Share of the spots, 0 to 1 by weight, whose response is not of minimum phase around each frequency: where its excess
 * phase turns by more than 126 degrees within a sixth of an octave. 0 where it is not known.
 */
export function nonMinimumPhaseShare(
  grid: Float64Array,
  excess: Float64Array[],
  weights?: number[],
): Float64Array {
  const out = new Float64Array(grid.length);
  const total = excess.reduce((sum, _, s) => sum + (weights?.[s] ?? 1), 0);
  let reach = 1;
  while (reach < grid.length - 1 && Math.log2(grid[reach]! / grid[0]!) < REACH_OCTAVES) reach++;
  for (let i = 0; i < grid.length; i++) {
    const [a, b] = [Math.max(0, i - reach), Math.min(grid.length - 1, i + reach)];
    excess.forEach((phase, s) => {
      if (Math.abs(phase[b]! - phase[a]!) > TURNED) out[i] = out[i]! + (weights?.[s] ?? 1) / total;
    });
  }
  return out.map((share) => Math.min(1, share)); // shares add up to a rounding above 1
}

/**
 * The excess phase that spots share: direction and length of the mean of e^{j phase} over them. Polarity is no excess phase:
 * half a turn that all frequencies have is taken off.
 * @returns radians (wrapped) and agreement 0 to 1; agreement 0 where a phase is not known
 */
export function sharedPhase(
  grid: Float64Array,
  excess: Float64Array[],
  weights?: number[],
): { radians: Float64Array; agreement: Float64Array } {
  const radians = new Float64Array(grid.length);
  const agreement = new Float64Array(grid.length);
  const total = excess.reduce((sum, _, s) => sum + (weights?.[s] ?? 1), 0);
  for (let i = 0; i < grid.length; i++) {
    let [re, im] = [0, 0];
    excess.forEach((phase, s) => {
      re += ((weights?.[s] ?? 1) / total) * Math.cos(phase[i]!);
      im += ((weights?.[s] ?? 1) / total) * Math.sin(phase[i]!);
    });
    if (!Number.isFinite(re + im)) continue;
    radians[i] = Math.atan2(im, re);
    agreement[i] = Math.hypot(re, im);
  }
  const isInverted = radians.reduce((sum, phase, i) => sum + agreement[i]! ** 2 * Math.cos(phase), 0) < 0;
  if (isInverted) radians.forEach((phase, i) => (radians[i] = phase > 0 ? phase - Math.PI : phase + Math.PI));
  return { radians, agreement };
}
