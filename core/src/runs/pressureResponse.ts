import type { Point } from '../geometry/index.js';
import { needAbove, needWhole } from '../limits/index.js';
import { addImpulse, joinOctaves, OCTAVES, type Lows } from '../room/index.js';
import {
  binFrequencies,
  fftSizeFor,
  inverseRealFft,
  realFft,
  seededRandom,
  type Random,
} from '../signal/index.js';
import { BIN_S, directionIn, SECTORS, stretchOf, type Heard } from '../tracing/index.js';
import type { Ear } from './ear.js';
import { OPEN_EAR } from './head.js';
import { latePulses } from './latePulses.js';

/** A response that one could listen to. */
export interface PressureResponse {
  samples: Float64Array;
  rate: number;
  /** index of the direct sound, or of where it would arrive */
  zero: number;
}

export interface PressureRequest {
  rate: number;
  /** cubic metres */
  volume: number;
  /** m/s */
  speed: number;
  seed: number;
}

/** Silence ahead of the direct sound, seconds. */
const LEAD_S = 0.01;

/**
 * Pressure over time from energy over time: mirrored ways as pulses where they arrive, what rays brought as pulses at random (`latePulses`).
 * @returns a response in which a pulse of 1 is the direct sound at 1 m of a source of 0 dB
 */
export function pressureResponse(heard: Heard, request: PressureRequest): PressureResponse {
  const { channels, rate, zero } = earResponses(heard, request, [OPEN_EAR]);
  return { samples: channels[0]!, rate, zero };
}

/**
 * The same at several ears at once: what mirrors bring comes to each by its direction, what rays brought by where that came from.
 * @param lowsIn what waves bring to each ear instead, in a transform of a size with the direct sound at an index; nothing where rays tell all
 */
export function earResponses(
  heard: Heard,
  { rate, volume, speed, seed }: PressureRequest,
  ears: readonly Ear[],
  lowsIn?: (into: { size: number; zero: number }) => readonly Lows[],
): { channels: Float64Array[]; rate: number; zero: number } {
  needWhole('earResponses', 'rate', rate, 4000, 192_000);
  needAbove('earResponses', 'volume in cubic metres', volume, 0);
  const { arrivals, bins } = heard;
  const random = seededRandom(seed);
  const from = lateDirections(heard, random);
  const zero = Math.round(LEAD_S * rate);
  const length = zero + Math.ceil(bins * BIN_S * rate) + zero;
  const size = fftSizeFor(length + zero);
  const bands = ears.map(() => OCTAVES.map(() => new Float64Array(size)));
  const [gains, here] = [new Float64Array(OCTAVES.length), new Float64Array(OCTAVES.length)];
  const add = (atS: number, going: Point, own: Float64Array) =>
    ears.forEach((ear, e) => {
      ear.gains(going, here);
      for (let o = 0; o < here.length; o++) here[o] = here[o]! * own[o]!;
      addImpulse(bands[e]!, zero + (atS + ear.delayS(going)) * rate, here);
    });
  for (const { laterS, energy: e, going } of arrivals) {
    if (laterS < -LEAD_S / 2 || laterS > bins * BIN_S) continue;
    for (let o = 0; o < gains.length; o++) gains[o] = Math.sqrt(e[o]!);
    add(laterS, going, gains);
  }
  latePulses(heard, { volume, speed, random }, (atS, own, bin) => add(atS, from(bin), own));
  const half = size / 2 + 1;
  const one = {
    frequency: binFrequencies(size, rate),
    re: new Float64Array(half).fill(1),
    im: new Float64Array(half),
  };
  const lows = lowsIn?.({ size, zero });
  const channels = bands.map((own, e) =>
    inverseRealFft(
      joinOctaves(
        one,
        own.map((band) => realFft(band)),
        rate,
        lows?.[e] ?? null,
      ),
    ).slice(0, length),
  );
  return { channels, rate, zero };
}

/** Directions in which what rays brought goes: as often as it came from there in that stretch of time; from anywhere where that was not kept. */
function lateDirections({ directions }: Heard, random: Random): (bin: number) => Point {
  if (!directions) return () => anyDirection(random);
  const upTo = directions.slice();
  for (let i = 0; i < upTo.length; i++) if (i % SECTORS > 0) upTo[i] = upTo[i]! + upTo[i - 1]!;
  return (bin) => {
    const first = stretchOf((bin + 0.5) * BIN_S) * SECTORS;
    const all = upTo[first + SECTORS - 1]!;
    if (!(all > 0)) return anyDirection(random);
    const at = random.uniform() * all;
    let sector = 0;
    while (sector < SECTORS - 1 && upTo[first + sector]! <= at) sector++;
    const { x, y, z } = directionIn(sector, random);
    return { x: -x, y: -y, z: -z };
  };
}

function anyDirection(random: Random): Point {
  const z = 2 * random.uniform() - 1;
  const around = 2 * Math.PI * random.uniform();
  const wide = Math.sqrt(1 - z * z);
  return { x: wide * Math.cos(around), y: wide * Math.sin(around), z };
}
