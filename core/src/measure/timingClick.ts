import { fftSizeFor, hannWindow, inverseRealFft, realFft, type RealArray } from '../signal/index.js';

const LENGTH_S = 0.03;
const FROM_HZ = 2000;
const TO_HZ = 6000;
/** A found click must stand this far over what else the correlation holds. */
const CLEAR = 8;
/** The direct sound: the first peak that reaches this share of the highest. */
const FIRST = 0.5;

/**
 * A soft click that marks the time where no loopback does: a windowed chirp of 30 ms, 2 to 6 kHz, played by a reference
 * loudspeaker ahead of each sweep.
 * @param levelDbfs of its highest sample, about
 */
export function timingClick(rate: number, levelDbfs: number): Float32Array {
  const length = Math.round(LENGTH_S * rate);
  const window = hannWindow(length);
  const amplitude = 10 ** (levelDbfs / 20);
  return Float32Array.from({ length }, (_, i) => {
    const t = i / rate;
    const phase = 2 * Math.PI * (FROM_HZ * t + ((TO_HZ - FROM_HZ) * t * t) / (2 * LENGTH_S));
    return amplitude * window[i]! * Math.sin(phase);
  });
}

/**
 * When a click arrived, in samples from the recording's first to the click's first, to a part of a sample: matched filter,
 * the first strong peak of its envelope's carrier, parabola through three samples.
 * @returns null when no click stands out
 */
export function findTimingClick(recording: RealArray, rate: number): number | null {
  const click = timingClick(rate, 0);
  const size = fftSizeFor(recording.length + click.length);
  const [a, b] = [realFft(recording, size), realFft(click, size)];
  for (let k = 0; k < a.re.length; k++) {
    const [re, im] = [a.re[k]!, a.im[k]!];
    a.re[k] = re * b.re[k]! + im * b.im[k]!;
    a.im[k] = im * b.re[k]! - re * b.im[k]!;
  }
  const match = inverseRealFft(a).map(Math.abs);
  const last = recording.length - click.length;
  let highest = 0;
  let sum = 0;
  for (let i = 0; i < last; i++) {
    highest = Math.max(highest, match[i]!);
    sum += match[i]! ** 2;
  }
  if (!(highest > CLEAR * Math.sqrt(sum / Math.max(1, last)))) return null;
  let at = 0;
  while (match[at]! < FIRST * highest) at++;
  // up to the top of this arrival: within a period of the carrier's slow beat
  const reach = at + Math.round(0.0006 * rate);
  for (let i = at; i <= reach && i < last; i++) if (match[i]! > match[at]!) at = i;
  const [left, mid, right] = [match[at - 1] ?? 0, match[at]!, match[at + 1]!];
  return at + (0.5 * (left - right)) / (left - 2 * mid + right || 1);
}
