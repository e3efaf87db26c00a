import { dot } from '../geometry/index.js';
import type { HeadSet } from '../formats/index.js';
import { needAbove } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { earsOf } from './head.js';
import { BANDS, DELAYS, GAINS, HEAD_ROW } from './measuredHead.js';

/** Looked at within each octave at so many places. */
const PER_OCTAVE = 6;
/** A response begins where it first comes to this share of its peak. */
const BEGINS = 0.1;
/** An octave is read from a response that holds so many of its periods; a shorter one says nothing of it. */
const PERIODS = 1.5;
/** In this octave every head is near to open, and responses are long enough: levels are set by it. */
const LEVEL_OCTAVE = OCTAVES.indexOf(500);

/**
 * A measured head as the room model hears with it: of each ear, from each direction, when sound comes and how much of it per octave.
 * What a file does not tell, its level and when sound would be in the middle of the head, is taken from a rigid sphere: as the mean
 * over all directions has it; so are octaves for which the responses are too short.
 * @returns `HEAD_ROW` numbers for each direction
 * @throws RangeError where nothing is heard
 */
export function packedHead({ rate, directions, ears }: HeadSet): Float32Array {
  needAbove('packedHead', 'rate', rate, 0);
  const rows = new Float64Array(HEAD_ROW * directions.length);
  const sphere = earsOf(0);
  const longest = Math.max(...ears.flatMap((both) => both.map((e) => e.samples.length)));
  const told = OCTAVES.map((hz) => longest >= (PERIODS * rate) / hz && hz * Math.SQRT2 <= rate / 2);
  const at = OCTAVES.map((hz) => probes(hz, rate, longest));
  const alike = new Float64Array(BANDS);
  const sums = { delay: 0, sphereDelay: 0, power: 0, spherePower: 0 };
  directions.forEach((d, i) => {
    const row = rows.subarray(HEAD_ROW * i, HEAD_ROW * (i + 1));
    row.set([d.x, d.y, d.z]);
    const going = { x: -d.x, y: -d.y, z: -d.z };
    ears[i]!.forEach(({ samples, zero }, ear) => {
      sphere[ear]!.gains(going, alike);
      const delayS = (beginningOf(samples) - zero) / rate;
      row[DELAYS + ear] = delayS;
      sums.delay += delayS;
      sums.sphereDelay += sphere[ear]!.delayS(going);
      for (let o = 0; o < BANDS; o++)
        row[GAINS + ear * BANDS + o] = told[o] ? powerIn(samples, at[o]!) : alike[o]! ** 2;
      sums.power += row[GAINS + ear * BANDS + LEVEL_OCTAVE]!;
      sums.spherePower += alike[LEVEL_OCTAVE]! ** 2;
    });
  });
  // a file may hold silence: that is told to who chose it, not to who wrote this
  if (!(sums.power > 0))
    throw new RangeError('Its responses are silent at 500 Hz, where levels are set. Choose another file.');
  const shift = (sums.sphereDelay - sums.delay) / (2 * directions.length);
  const level = sums.spherePower / sums.power;
  for (let i = 0; i < directions.length; i++)
    for (let ear = 0; ear < 2; ear++) {
      rows[HEAD_ROW * i + DELAYS + ear]! += shift;
      for (let o = 0; o < BANDS; o++) {
        const k = HEAD_ROW * i + GAINS + ear * BANDS + o;
        rows[k] = Math.sqrt(rows[k]! * (told[o] ? level : 1));
      }
    }
  return Float32Array.from(rows);
}

/** Where a response begins, in samples, between them by a straight line. */
function beginningOf(samples: Float64Array): number {
  const wanted = BEGINS * samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const i = samples.findIndex((v) => Math.abs(v) >= wanted);
  if (i <= 0) return 0;
  const [a, b] = [Math.abs(samples[i - 1]!), Math.abs(samples[i]!)];
  return i - 1 + (wanted - a) / (b - a);
}

/** Cosines and sines of frequencies spread over an octave, for as many samples. */
const probes = (centre: number, rate: number, length: number) =>
  Array.from({ length: PER_OCTAVE }, (_, i) => {
    const turn = (2 * Math.PI * centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5)) / rate;
    return {
      cos: Float64Array.from({ length }, (_, n) => Math.cos(turn * n)),
      sin: Float64Array.from({ length }, (_, n) => Math.sin(turn * n)),
    };
  });

/** Mean power of a response at some frequencies. */
const powerIn = (samples: Float64Array, at: ReturnType<typeof probes>): number =>
  at.reduce((sum, { cos, sin }) => {
    let [re, im] = [0, 0];
    for (let n = 0; n < samples.length; n++) {
      re += samples[n]! * cos[n]!;
      im -= samples[n]! * sin[n]!;
    }
    return sum + (re * re + im * im) / at.length;
  }, 0);

/** Whether numbers are a packed head: rows of directions of unit length, all of them finite. */
export function isPackedHead(numbers: Float32Array): boolean {
  if (numbers.length === 0 || numbers.length % HEAD_ROW !== 0) return false;
  if (!numbers.every((v) => Number.isFinite(v))) return false;
  for (let k = 0; k < numbers.length; k += HEAD_ROW) {
    const d = { x: numbers[k]!, y: numbers[k + 1]!, z: numbers[k + 2]! };
    if (Math.abs(dot(d, d) - 1) > 1e-3) return false;
  }
  return true;
}
