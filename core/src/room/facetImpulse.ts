import { distanceBetween, type Point } from '../geometry/index.js';
import { inverseRealFft, realFft } from '../signal/index.js';
import { addImpulse } from './addImpulse.js';
import { airAbsorption, speedOfSound, type Air } from './air.js';
import type { BoxImpulseOptions, Source } from './boxImpulse.js';
import { addTail } from './diffuseTail.js';
import { facetArrivals, type ReflectingFacet } from './facetImages.js';
import { beamExponent, beamGain, loudspeakerSpectrum } from './loudspeaker.js';
import { joinOctaves } from './joinOctaves.js';
import { OCTAVES, type PerOctave } from './octaves.js';

/** A room of any flat faces; without a volume it is open, and only its faces reflect. */
export interface FacetRoom {
  facets: readonly (ReflectingFacet & { absorption: PerOctave; area: number })[];
  /** cubic metres; null outdoors */
  volume: number | null;
  air: Air;
}

/** A source that plays with others: later, and the other way round where asked. */
export interface PlayedSource extends Source {
  delayS: number;
  gain: number;
}

/** Reverberation time per octave after Eyring (1930), seconds, without air. */
export function facetEyringTime({ facets, volume, air }: FacetRoom): number[] {
  if (volume === null || !(volume > 0)) throw new RangeError('facetEyringTime: the room has no volume');
  const surface = facets.reduce((sum, f) => sum + f.area, 0);
  const c = speedOfSound(air.temperatureC);
  return OCTAVES.map((f, o) => {
    const mean = facets.reduce((sum, { area, absorption }) => sum + area * absorption[o]!, 0) / surface;
    if (!(mean > 0 && mean < 1))
      throw new RangeError(
        `facetEyringTime: mean absorption at ${f} Hz must be above 0 and below 1, got ${mean}`,
      );
    return (24 * Math.LN10 * volume) / (c * -surface * Math.log(1 - mean));
  });
}

/** Ways of sound that are looked at, at most; they grow with the number of faces to the power of the order. */
const MOST_WAYS = 6000;
const MOST_ORDER = 5;

/** The order of image sources that is used in a room of so many faces. */
export function facetOrder(faces: number): number {
  let order = 1;
  const ways = (n: number) => faces * Math.max(1, faces - 1) ** (n - 1);
  while (order < MOST_ORDER && ways(order + 1) <= MOST_WAYS) order++;
  return order;
}

/** By then hardly anything has been reflected less often than the order goes. */
const MOST_FREE_PATHS = 16;

/** Probability that more than `order` events have come where `mean` are expected (Poisson). */
export function moreThan(order: number, mean: number): number {
  let term = Math.exp(-mean);
  let sum = term;
  for (let k = 1; k <= order; k++) sum += term *= mean / k;
  return Math.max(0, 1 - sum);
}

/**
 * Impulse response from loudspeakers that play together to an omnidirectional receiver, in a room of flat faces: specular
 * ways up to `facetOrder` with reflection per octave, air and beam; what has been reflected more often by then, if reflections
 * come at random after the mean free path 4 V / S, is a diffuse tail with Eyring's decay. Below the frequencies at which modes
 * overlap this is less than what `boxImpulse` tells.
 * @param sources of one model
 * @returns `size` samples; the first is the moment of the drive
 */
export function facetImpulse(
  room: FacetRoom,
  sources: readonly PlayedSource[],
  receiver: Point,
  { rate, size, seed }: BoxImpulseOptions,
): Float64Array {
  const { facets, volume, air } = room;
  const [{ model }] = sources as [PlayedSource, ...PlayedSource[]];
  const c = speedOfSound(air.temperatureC);
  const surface = facets.reduce((sum, f) => sum + f.area, 0);
  const order = facetOrder(facets.length);
  // seconds from one reflection to the next, on the mean
  const freeS = volume === null ? Infinity : (4 * volume) / surface / c;
  const longest = Math.min(MOST_FREE_PATHS * freeS, (0.9 * size) / rate) * c;
  const exponents = OCTAVES.map((f) => beamExponent(model, f));
  const losses = OCTAVES.map((f) => (airAbsorption(f, air) * Math.LN10) / 20);
  const bands = OCTAVES.map(() => new Float64Array(size));
  const gains = new Float64Array(OCTAVES.length);
  sources.forEach((source, n) => {
    for (const { distance, emission, faces } of facetArrivals(
      facets,
      source.position,
      receiver,
      order,
      longest,
    )) {
      const time = distance / c + source.delayS;
      const { aim } = source;
      const cosine = emission.x * aim.x + emission.y * aim.y + emission.z * aim.z;
      for (let o = 0; o < OCTAVES.length; o++) {
        let energy = 1;
        for (const face of faces) energy *= 1 - facets[face]!.absorption[o]!;
        gains[o] =
          (source.gain *
            Math.sqrt(energy) *
            Math.exp(-losses[o]! * distance) *
            beamGain(exponents[o]!, cosine)) /
          Math.max(distance, 0.1);
      }
      addImpulse(bands, time * rate, gains);
    }
    if (volume !== null)
      addTail(bands, rate, {
        volume,
        times: facetEyringTime(room),
        air,
        exponents,
        // nothing is heard ahead of the straight way
        from: distanceBetween(source.position, receiver) / c + source.delayS,
        share: (timeS) => moreThan(order, Math.max(0, timeS - source.delayS) / freeS),
        seed: seed + n,
      });
  });
  const spectrum = loudspeakerSpectrum(model, size, rate);
  const octaves = bands.map((band) => realFft(band));
  return inverseRealFft(joinOctaves(spectrum, octaves, rate));
}
