import { delayTrace, fftSizeFor, inverseRealFft, realFft, type RealArray } from '../signal/index.js';
import { timingClick } from './timingClick.js';

/** So much of the room's answer tells one place from another: the direct sound and the first reflections. */
const KEPT_S = 0.04;
const AHEAD_S = 0.002;

/** How long a recording must go on after the click was played. */
export const REFERENCE_TAIL_S = 0.12;

/**
 * What a reference click (2 to 6 kHz) became at the microphone: matched filter, from 2 ms ahead of its playing on.
 * @param tail recording from the click on
 * @param delay samples from playing to recording, with their fraction
 */
export function referenceResponse(tail: RealArray, rate: number, delay: number): Float32Array {
  const click = timingClick(rate, 0);
  const size = fftSizeFor(tail.length + click.length);
  const a = delayTrace(realFft(tail, size), AHEAD_S * rate - delay);
  const b = realFft(click, size);
  for (let k = 0; k < a.re.length; k++) {
    const [re, im] = [a.re[k]!, a.im[k]!];
    a.re[k] = re * b.re[k]! + im * b.im[k]!;
    a.im[k] = im * b.re[k]! - re * b.im[k]!;
  }
  return Float32Array.from(inverseRealFft(a).subarray(0, Math.round((AHEAD_S + KEPT_S) * rate)));
}

/** How alike two answers to the reference click are: their correlation without any shift, 1 for the same place. */
export function likeness(a: RealArray, b: RealArray): number {
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    ab += a[i]! * b[i]!;
    aa += a[i]! * a[i]!;
    bb += b[i]! * b[i]!;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** Two answers less alike than this were not heard at one place: a quarter of the click's middle wave is 2 cm. */
export const SAME_PLACE = 0.8;
