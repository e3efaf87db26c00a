import { meanPoint, type Point } from '../geometry/index.js';
import { OCTAVES } from '../room/index.js';
import {
  EMISSION_COLUMNS,
  EMISSION_ROWS,
  emissionDirections,
  emissionOf,
  type Emission,
} from '../tracing/index.js';
import { firstArrivalS } from './field.js';
import { pressureAtPoints, type CoverageChannel } from './levelMap.js';

/** So far away the boxes of a channel are one, metres. */
const FAR_M = 2000;
/** Frequencies in an octave. */
const PER_OCTAVE = 9;
/** What goes nowhere is this far below full scale at 1 m, so that figures of such an octave stay numbers, dB SPL. */
const SILENT_DB = -60;
const BANDS = OCTAVES.length;

/** A channel as a point that sends, where it is and when. */
export interface ChannelEmission extends Emission {
  position: Point;
  /** seconds from the signal to the first of its boxes */
  delayS: number;
}

/**
 * What a channel's boxes send together far away, in the open, from their middle.
 * @param speed m/s
 * @returns powers in dB SPL for a signal whose power in each octave is that of a sine of full scale
 */
export function channelEmission(channel: CoverageChannel, speed: number): ChannelEmission {
  const position = meanPoint(channel.boxes.map((b) => b.position));
  const directions = emissionDirections();
  const points = directions.map((v, i) => FAR_M * v + [position.x, position.y, position.z][i % 3]!);
  const energies = new Float64Array(EMISSION_ROWS * EMISSION_COLUMNS * BANDS);
  const frequency = Float64Array.from(
    OCTAVES.flatMap((centre) =>
      Array.from({ length: PER_OCTAVE }, (_, i) => centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5)),
    ),
  );
  const { re, im } = pressureAtPoints([channel], { speed, air: null, ground: null }, points, frequency);
  const least = 10 ** (SILENT_DB / 10);
  for (let o = 0; o < BANDS; o++)
    for (let d = 0; d < EMISSION_ROWS * EMISSION_COLUMNS; d++) {
      let sum = least;
      for (let i = 0; i < PER_OCTAVE; i++) {
        const n = o * PER_OCTAVE + i;
        sum += ((re[n]![d]! ** 2 + im[n]![d]! ** 2) * FAR_M * FAR_M) / PER_OCTAVE;
      }
      energies[d * BANDS + o] = sum;
    }
  const around = channel.boxes.map(({ position: at, delayMs }) => ({ position: at, delayS: delayMs / 1000 }));
  const far = { x: position.x + FAR_M, y: position.y, z: position.z };
  const delayS =
    firstArrivalS(
      around.map((b) => ({ ...b, delayS: b.delayS + channel.path.delayS })),
      far,
      speed,
    ) -
    FAR_M / speed;
  return { ...emissionOf(energies), position, delayS: Math.max(0, delayS) };
}
