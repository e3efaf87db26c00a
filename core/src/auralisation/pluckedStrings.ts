import { seededRandom, type Random } from '../signal/index.js';

/** Notes of a made-up tune: seconds, semitones from A at 110 Hz, where it is panned (0 left, 1 right). */
const TUNE: [number, number, number][] = [
  [0, 0, 0.5],
  [0, 12, 0.3],
  [0.5, 15, 0.7],
  [1, 19, 0.4],
  [1.5, 24, 0.6],
  [2, -5, 0.5],
  [2, 14, 0.35],
  [2.5, 17, 0.65],
  [3, 22, 0.4],
  [3.5, 26, 0.6],
  [4, -4, 0.5],
  [4, 8, 0.3],
  [4.5, 15, 0.7],
  [5, 20, 0.45],
  [5.5, 27, 0.55],
  [6, -9, 0.5],
  [6, 12, 0.4],
  [6.5, 16, 0.6],
  [7, 24, 0.5],
];
const RING_S = 2.2;
const LENGTH_S = 9;

/**
 * Plucked strings by a delay line with a mean of two neighbours in its loop (Karplus and Strong 1983): a short tune of our
 * own, stereo, full scale = 1, largest sample 0.5.
 */
export function pluckedStrings(rate: number, seed = 7): [Float32Array, Float32Array] {
  const random = seededRandom(seed);
  const left = new Float32Array(Math.round(LENGTH_S * rate));
  const right = new Float32Array(left.length);
  for (const [atS, semitones, pan] of TUNE) {
    const note = pluck(110 * 2 ** (semitones / 12), rate, random);
    const from = Math.round(atS * rate);
    const [a, b] = [Math.cos((pan * Math.PI) / 2), Math.sin((pan * Math.PI) / 2)];
    for (let i = 0; i < note.length && from + i < left.length; i++) {
      left[from + i] = left[from + i]! + a * note[i]!;
      right[from + i] = right[from + i]! + b * note[i]!;
    }
  }
  let most = 0;
  for (let i = 0; i < left.length; i++) most = Math.max(most, Math.abs(left[i]!), Math.abs(right[i]!));
  for (let i = 0; i < left.length; i++) {
    left[i] = (0.5 * left[i]!) / most;
    right[i] = (0.5 * right[i]!) / most;
  }
  return [left, right];
}

/** One string: fundamental within half a sample of its period, faded at its end. */
export function pluck(frequency: number, rate: number, random: Random): Float32Array {
  const period = rate / frequency - 0.5; // the mean of two adds half a sample
  const whole = Math.floor(period);
  const part = period - whole;
  const line = Float64Array.from({ length: whole + 2 }, () => 2 * random.uniform() - 1);
  const out = new Float32Array(Math.round(RING_S * rate));
  const at = (i: number) => (i < line.length ? line[i]! : out[i]!);
  for (let i = 0; i < out.length; i++) {
    if (i < line.length) {
      out[i] = line[i]!;
      continue;
    }
    // mean of two neighbours, read between samples so that the string is in tune
    const a = at(i - whole) * (1 - part) + at(i - whole - 1) * part;
    const b = at(i - whole - 1) * (1 - part) + at(Math.max(0, i - whole - 2)) * part;
    out[i] = 0.498 * (a + b);
  }
  const fade = Math.round(0.1 * rate);
  for (let i = 0; i < fade; i++) out[out.length - 1 - i] = (out[out.length - 1 - i]! * i) / fade;
  return out;
}
