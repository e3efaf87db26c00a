import { seededRandom } from '../signal/index.js';
import { airAbsorption, speedOfSound, type Air } from './air.js';
import { directivityFactor } from './loudspeaker.js';
import { OCTAVES } from './octaves.js';

/** A diffuse field that dies away. */
export interface DiffuseTail {
  volume: number;
  /** reverberation time per octave without air, seconds */
  times: readonly number[];
  air: Air;
  /** exponent of the source's beam per octave */
  exponents: readonly number[];
  /** it begins then, seconds from the drive, and has this share of the energy at each moment */
  from: number;
  share: (timeS: number) => number;
  seed: number;
}

/**
 * Adds a Gaussian diffuse tail to each octave, of the energy that a diffuse field has (4 pi c / V per second, re 1 m) with
 * what the source radiates into the whole sphere.
 */
export function addTail(
  bands: readonly Float64Array[],
  rate: number,
  { volume, times, air, exponents, from, share, seed }: DiffuseTail,
): void {
  const random = seededRandom(seed);
  const c = speedOfSound(air.temperatureC);
  const size = bands[0]!.length;
  const noise = new Float64Array(size);
  const first = Math.round(from * rate);
  for (let i = first; i < size; i++) noise[i] = random.normal() * Math.sqrt(share(i / rate));
  bands.forEach((band, o) => {
    const perSample = (4 * Math.PI * c) / volume / rate / directivityFactor(exponents[o]!);
    const decay = (3 * Math.LN10) / times[o]! + airAbsorption(OCTAVES[o]!, air) * (Math.LN10 / 20) * c;
    const perStep = Math.exp(-decay / rate);
    let level = Math.sqrt(perSample) * Math.exp((-decay * first) / rate);
    for (let i = first; i < size; i++) {
      band[i] = band[i]! + level * noise[i]!;
      level *= perStep;
    }
  });
}
