import { findArrival, windowImpulse } from '../measure/index.js';
import {
  binFrequencies,
  delayTrace,
  emptySpectrum,
  fftSizeFor,
  fftSizeOf,
  cosineStep,
  dbOfPower,
  gainOfDb,
  interpolateLog,
  inverseRealFft,
  logGrid,
  powerOf,
  realFft,
  smoothPower,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';

export interface MicrophoneError {
  frequency: number[];
  /** what the microphone reads over the truth, dB */
  levelDb: number[];
}

export interface FloorAndEarRequest {
  /** response at the ear, and its microphone's calibration */
  ear: ImpulseResponse;
  earError: MicrophoneError | null;
  /** response at the floor below, of the same rate */
  floor: ImpulseResponse;
  floorError: MicrophoneError | null;
  crossoverHz: number;
  /** the band that the loudspeaker plays; where it ends below the overlap, the two are fitted at its upper end */
  band?: { from: number; to: number } | null;
}

export interface JoinedResponse {
  /** the one curve as a response, as the ear's microphone would have read it: its calibration is still to be taken off */
  joined: ImpulseResponse;
  /** the floor microphone was raised by this and made later by this, to fit the ear's */
  levelDb: number;
  delayS: number;
  /** how far the two differ in the overlap after that, RMS over 1/3 octaves, dB */
  misfitDb: number;
}

/** Half the overlap around the crossover, octaves: there level and delay are fitted, and one curve passes into the other. */
const HALF_OVERLAP = 0.5;
/** The delay between the two is looked for within this. */
const MOST_DELAY_S = 0.02;

/**
 * One curve of a microphone on the floor and one at the ear above it: the floor's below the crossover, where the ear
 * hears the floor's reflection as dips, and the ear's above it, where the floor hears too much of itself. Gain and delay
 * of the floor's are fitted to the ear's in the octave around the crossover: the delay by cross-correlation within it, the
 * gain by the mean power, as a floor reflection at the ear moves that little.
 * @throws RangeError for differing rates or a crossover outside 50 Hz to 8 kHz
 */
export function joinFloorAndEar({
  ear,
  earError,
  floor,
  floorError,
  crossoverHz,
  band = null,
}: FloorAndEarRequest): JoinedResponse {
  if (ear.rate !== floor.rate)
    throw new RangeError(`joinFloorAndEar: rates of ${ear.rate} and ${floor.rate} Hz`);
  if (!(crossoverHz >= 50 && crossoverHz <= 8000))
    throw new RangeError(`joinFloorAndEar: crossover at ${crossoverHz} Hz; want 50 to 8000`);
  const { rate } = ear;
  const length = Math.max(ear.samples.length, floor.samples.length);
  const size = fftSizeFor(2 * length);
  const frequency = binFrequencies(size, rate);
  const earSpectrum = realFft(ear.samples, size);
  const [earAdds, floorAdds] = [errorAt(earError, frequency), errorAt(floorError, frequency)];
  // both counted from the same time zero, and the floor's seen through the ear's microphone
  const floorSpectrum = scaled(
    delayTrace(realFft(floor.samples, size), ear.zero - floor.zero),
    earAdds.map((e, k) => gainOfDb(e - floorAdds[k]!)),
  );
  const middle = band
    ? Math.min(crossoverHz, Math.max(band.from, band.to) * 2 ** -HALF_OVERLAP)
    : crossoverHz;
  const [from, to] = [middle * 2 ** -HALF_OVERLAP, middle * 2 ** HALF_OVERLAP];
  // by the direct sound alone: the room's own answer is another one at each of the two
  const direct = [
    delayTrace(realFft(early(floor, middle), size), ear.zero - floor.zero),
    realFft(early(ear, middle), size),
  ] as const;
  const delay = delayBetween(...direct, frequency, [from / 2, to * 2], MOST_DELAY_S * rate);
  const late = delayTrace(floorSpectrum, delay);

  const thirds = logGrid(from, to, 3);
  const smooth = (s: ComplexTrace) => smoothPower(frequency, powerOf(s), 3, thirds);
  const [ears, floors] = [smooth(earSpectrum), smooth(late)];
  const sum = (p: Float64Array) => p.reduce((a, b) => a + b, 0);
  const levelDb = dbOfPower(sum(ears) / sum(floors));
  const off = ears.map((p, i) => dbOfPower(p / floors[i]!) - levelDb);
  const misfitDb = Math.sqrt(sum(off.map((v) => v * v)) / off.length);

  const gain = gainOfDb(levelDb);
  const joined = emptySpectrum(size, rate);
  frequency.forEach((f, k) => {
    const share = cosineStep(Math.log2(Math.max(f, 1e-9) / crossoverHz), -HALF_OVERLAP, HALF_OVERLAP); // the ear's
    const [er, ei] = [earSpectrum.re[k]!, earSpectrum.im[k]!];
    const [fr, fi] = [gain * late.re[k]!, gain * late.im[k]!];
    // powers pass into each other; the phase is that of the mixture, so a disagreement makes no dip
    const power = share * (er * er + ei * ei) + (1 - share) * (fr * fr + fi * fi);
    const [mr, mi] = [share * er + (1 - share) * fr, share * ei + (1 - share) * fi];
    const scale = Math.sqrt(power) / (Math.hypot(mr, mi) || 1);
    joined.re[k] = mr * scale;
    joined.im[k] = mi * scale;
  });
  const samples = Float32Array.from(inverseRealFft(joined).subarray(0, length));
  return { joined: { samples, rate, zero: ear.zero }, levelDb, delayS: delay / rate, misfitDb };
}

/** A response up to 2 ms, or 3 periods, after its arrival. */
function early(impulse: ImpulseResponse, hz: number): Float64Array {
  const arrival = findArrival(impulse);
  if (!arrival) return Float64Array.from(impulse.samples);
  const lengthS = Math.max(0.002, 3 / hz);
  const window = { centreS: arrival.onsetS, leftS: lengthS / 2, rightS: 2 * lengthS };
  return Float64Array.from(windowImpulse(impulse, window).samples);
}

function errorAt(error: MicrophoneError | null, frequency: Float64Array): Float64Array {
  if (!error) return new Float64Array(frequency.length);
  const audible = frequency.map((f) => Math.max(f, 1));
  return interpolateLog(Float64Array.from(error.frequency), Float64Array.from(error.levelDb), audible);
}

const scaled = ({ frequency, re, im }: ComplexTrace, gain: Float64Array): ComplexTrace => ({
  frequency,
  re: re.map((v, k) => v * gain[k]!),
  im: im.map((v, k) => v * gain[k]!),
});

/** Samples by which `a` must be made later to fit `b` best within a band: the highest of their correlation, by a parabola. */
function delayBetween(
  a: ComplexTrace,
  b: ComplexTrace,
  frequency: Float64Array,
  [from, to]: [number, number],
  most: number,
): number {
  const cross = emptySpectrum(fftSizeOf(a));
  const middle = Math.sqrt(from * to);
  const width = Math.log(to / from) / 2;
  frequency.forEach((f, k) => {
    const off = f > 0 ? Math.abs(Math.log(f / middle)) / width : 2;
    if (off >= 1) return;
    const weight = 0.5 + 0.5 * Math.cos(Math.PI * off);
    cross.re[k] = weight * (b.re[k]! * a.re[k]! + b.im[k]! * a.im[k]!);
    cross.im[k] = weight * (b.im[k]! * a.re[k]! - b.re[k]! * a.im[k]!);
  });
  const match = inverseRealFft(cross);
  const at = (t: number) => match[(t + match.length) % match.length]!;
  const reach = Math.ceil(most);
  let best = 0;
  for (let t = -reach; t <= reach; t++) if (at(t) > at(best)) best = t;
  const [left, mid, right] = [at(best - 1), at(best), at(best + 1)];
  return best + (0.5 * (left - right)) / (left - 2 * mid + right || 1);
}
