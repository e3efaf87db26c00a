import type { Point, Pose } from '../geometry/index.js';
import { cosineStep, inverseRealFft, realFft } from '../signal/index.js';
import { addImpulse } from './addImpulse.js';
import { airAbsorption, speedOfSound } from './air.js';
import { eyringTime, volumeOf, type BoxRoom } from './box.js';
import { addTail } from './diffuseTail.js';
import { visitImages } from './imageSources.js';
import { beamExponent, beamGain, loudspeakerSpectrum, type LoudspeakerModel } from './loudspeaker.js';
import { joinOctaves } from './joinOctaves.js';
import { OCTAVES } from './octaves.js';

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
  addTail(highs, rate, {
    volume: volumeOf(room),
    times: eyringTime(room),
    air: room.air,
    exponents,
    from: 0.6 * EARLY_S,
    share: (timeS) => cosineStep(timeS, 0.6 * EARLY_S, EARLY_S),
    seed: options.seed,
  });

  const lowSpectra = lows.map((low) => realFft(low));
  const highSpectra = highs.map((high) => realFft(high));
  const spectrum = loudspeakerSpectrum(source.model, size, rate);
  return inverseRealFft(
    joinOctaves(spectrum, highSpectra, rate, { octaves: lowSpectra, upToHz: CROSSOVER_HZ }),
  );
}
