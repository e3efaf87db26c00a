import type { Point, Pose } from '../geometry/index.js';
import { cosineStep, inverseRealFft, realFft, seededRandom, type ComplexTrace } from '../signal/index.js';
import { airAbsorption, speedOfSound } from './air.js';
import { eyringTime, volumeOf, type BoxRoom } from './box.js';
import { visitImages } from './imageSources.js';
import {
  beamExponent,
  beamGain,
  directivityFactor,
  loudspeakerSpectrum,
  type LoudspeakerModel,
} from './loudspeaker.js';
import { OCTAVES, octaveShares } from './octaves.js';

/** A loudspeaker in the room. */
export interface Source extends Pose {
  model: LoudspeakerModel;
}

export interface BoxImpulseOptions {
  rate: number;
  /** samples and transform size, a power of two */
  size: number;
  /** the diffuse tail is the same for the same seed */
  seed: number;
}

/** Above this the room is images and a diffuse tail, below it images alone, for long enough to make its modes. */
const CROSSOVER_HZ = 300;
const EARLY_S = 0.1;
const MODAL_S = 0.55;
/** Octaves that have a share below the crossover: 63 to 500 Hz. */
const LOW_OCTAVES = 4;
/** ln of the reflections' product below which an image is left out: -60 dB on top of its distance. */
const INAUDIBLE = -7;
const BEAM_STEPS = 1000;
/** The modal part runs at a fraction of the rate; its bins fall together with those of the full rate. */
const DECIMATION = 32;

/**
 * Impulse response from a loudspeaker to an omnidirectional receiver in a box: image sources with reflection per octave,
 * air absorption and the loudspeaker's beam, at exact fractional times; above 300 Hz a Gaussian diffuse tail with
 * Eyring's decay follows after 0.1 s, of the energy that the images would have had (4 pi c / V per second, re 1 m).
 * @returns `size` samples; the first is the moment the loudspeaker is driven
 */
export function boxImpulse(
  room: BoxRoom,
  source: Source,
  receiver: Point,
  options: BoxImpulseOptions,
): Float64Array {
  const { rate, size } = options;
  const lowRate = rate / DECIMATION;
  const lows = Array.from({ length: LOW_OCTAVES }, () => new Float64Array(size / DECIMATION));
  const highs = OCTAVES.map(() => new Float64Array(size));
  const c = speedOfSound(room.air.temperatureC);
  const exponents = OCTAVES.map((f) => beamExponent(source.model, f));
  // octave by octave in a row, as the reflections below: the innermost loop runs half a million times
  const beams = new Float64Array(OCTAVES.length * (BEAM_STEPS + 1));
  exponents.forEach((n, o) => {
    for (let i = 0; i <= BEAM_STEPS; i++)
      beams[o * (BEAM_STEPS + 1) + i] = beamGain(n, (2 * i) / BEAM_STEPS - 1);
  });
  const air = Float64Array.from(OCTAVES, (f) => (-airAbsorption(f, room.air) * Math.LN10) / 20);
  // ln of the pressure reflection, six walls per octave
  const reflection = Float64Array.from({ length: 6 * OCTAVES.length }, (_, i) => {
    return 0.5 * Math.log(1 - room.absorption[i % 6]![Math.floor(i / 6)]!);
  });

  const { x: ax, y: ay, z: az } = source.aim;
  const gains = new Float64Array(OCTAVES.length);
  const faded = new Float64Array(OCTAVES.length);

  visitImages(
    room,
    source.position,
    receiver,
    Math.min(MODAL_S, (0.9 * size) / rate),
    ({ distance, emission, hits }) => {
      const time = distance / c;
      const early = 1 - cosineStep(time, 0.6 * EARLY_S, EARLY_S);
      const cosine = emission[0] * ax + emission[1] * ay + emission[2] * az;
      const last = early > 0 ? OCTAVES.length : LOW_OCTAVES;
      const direction = Math.round((0.5 + 0.5 * cosine) * BEAM_STEPS);
      const spread = 1 / Math.max(distance, 0.1);
      for (let o = 0; o < last; o++) {
        const r = 6 * o;
        const log =
          air[o]! * distance +
          hits[0] * reflection[r]! +
          hits[1] * reflection[r + 1]! +
          hits[2] * reflection[r + 2]! +
          hits[3] * reflection[r + 3]! +
          hits[4] * reflection[r + 4]! +
          hits[5] * reflection[r + 5]!;
        gains[o] = log < INAUDIBLE ? 0 : Math.exp(log) * beams[o * (BEAM_STEPS + 1) + direction]! * spread;
      }
      const late = cosineStep(time, MODAL_S, 0.8 * MODAL_S);
      for (let o = 0; o < LOW_OCTAVES; o++) faded[o] = gains[o]! * late;
      addImpulse(lows, time * lowRate, faded);
      if (early === 0) return;
      for (let o = 0; o < OCTAVES.length; o++) gains[o]! *= early;
      addImpulse(highs, time * rate, gains);
    },
  );
  addTail(highs, room, exponents, options);

  const lowSpectra = lows.map((low) => realFft(low));
  const highSpectra = highs.map((high) => realFft(high));
  const spectrum = loudspeakerSpectrum(source.model, size, rate);
  return inverseRealFft(joinOctaves(spectrum, lowSpectra, highSpectra, rate));
}

/** Interpolator: a sinc under a Hann window of 2 x REACH samples, tabulated for PHASES positions between two samples. */
const REACH = 10;
const PHASES = 4096;
let table: Float64Array | undefined;

function interpolator(): Float64Array {
  if (table) return table;
  const made = new Float64Array((PHASES + 1) * 2 * REACH);
  for (let phase = 0; phase <= PHASES; phase++) {
    for (let i = 0; i < 2 * REACH; i++) {
      const x = i - REACH + 1 - phase / PHASES;
      const sinc = Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
      made[phase * 2 * REACH + i] = sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / REACH));
    }
  }
  return (table = made);
}

/** Adds a band-limited impulse at a fractional sample to several buffers, each with its own gain. */
function addImpulse(buffers: Float64Array[], at: number, gains: Float64Array): void {
  const taps = interpolator();
  const whole = Math.floor(at);
  const row = Math.round((at - whole) * PHASES) * 2 * REACH;
  const first = whole - REACH + 1;
  const from = Math.max(0, -first);
  const to = Math.min(2 * REACH, buffers[0]!.length - first);
  for (let b = 0; b < buffers.length; b++) {
    const buffer = buffers[b]!;
    const gain = gains[b]!;
    if (gain === 0) continue;
    for (let i = from; i < to; i++) buffer[first + i]! += gain * taps[row + i]!;
  }
}

function addTail(
  bands: Float64Array[],
  room: BoxRoom,
  exponents: number[],
  { rate, size, seed }: BoxImpulseOptions,
) {
  const random = seededRandom(seed);
  const c = speedOfSound(room.air.temperatureC);
  const times = eyringTime(room);
  const noise = new Float64Array(size);
  const from = Math.round(0.6 * EARLY_S * rate);
  for (let i = from; i < size; i++)
    noise[i] = random.normal() * Math.sqrt(cosineStep(i / rate, 0.6 * EARLY_S, EARLY_S));
  bands.forEach((band, o) => {
    const perSample = (4 * Math.PI * c) / volumeOf(room) / rate / directivityFactor(exponents[o]!);
    const decay = (3 * Math.LN10) / times[o]! + airAbsorption(OCTAVES[o]!, room.air) * (Math.LN10 / 20) * c;
    const perStep = Math.exp(-decay / rate);
    let level = Math.sqrt(perSample) * Math.exp((-decay * from) / rate);
    for (let i = from; i < size; i++) {
      band[i] = band[i]! + level * noise[i]!;
      level *= perStep;
    }
  });
}

function joinOctaves(
  loudspeaker: ComplexTrace,
  lows: ComplexTrace[],
  highs: ComplexTrace[],
  rate: number,
): ComplexTrace {
  const bins = loudspeaker.re.length;
  const size = 2 * (bins - 1);
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  const shares = new Float64Array(OCTAVES.length);
  for (let k = 0; k < bins; k++) {
    const f = (k * rate) / size;
    octaveShares(f, shares);
    const modal =
      f > 0 ? cosineStep(Math.log(f), Math.log(CROSSOVER_HZ * 1.2), Math.log(CROSSOVER_HZ / 1.2)) : 1;
    let [sumRe, sumIm] = [0, 0];
    for (let o = 0; o < OCTAVES.length; o++) {
      if (shares[o] === 0) continue;
      if (modal < 1) {
        sumRe += shares[o]! * (1 - modal) * highs[o]!.re[k]!;
        sumIm += shares[o]! * (1 - modal) * highs[o]!.im[k]!;
      }
      const low = lows[o];
      if (modal > 0 && low) {
        sumRe += shares[o]! * modal * low.re[k]!;
        sumIm += shares[o]! * modal * low.im[k]!;
      }
    }
    re[k] = sumRe * loudspeaker.re[k]! - sumIm * loudspeaker.im[k]!;
    im[k] = sumRe * loudspeaker.im[k]! + sumIm * loudspeaker.re[k]!;
  }
  im[bins - 1] = 0;
  return { frequency: loudspeaker.frequency, re, im };
}
