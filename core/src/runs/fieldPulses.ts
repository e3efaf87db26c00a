import { dot, minus, type Point } from '../geometry/index.js';
import { needAbove } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { seededRandom } from '../signal/index.js';
import { BIN_S, type Heard } from '../tracing/index.js';
import { DENSE_PER_S, poisson } from './latePulses.js';

/** A field of plane waves that go through the whole room. */
export interface FieldRequest {
  /** cubic metres */
  volume: number;
  /** m/s */
  speed: number;
  /** of the waves of one source: receivers of one seed are in the same field */
  seed: number;
  /** about where the waves are thought of */
  middle: Point;
  receiver: Point;
}

/**
 * What rays brought, as pulses of plane waves from all around that go through the room: receivers that are near each other hear alike what is
 * low enough, as in a diffuse field (sin kr / kr; Cook 1955). As many as a room of this volume has by then (4 pi c^3 t^2 / V in a second,
 * up to 10,000), with the energy that is heard when they arrive, on the mean.
 * @param add told when each arrives, seconds after the drive, and its amplitude per octave (reused: copy what is to be kept)
 */
export function fieldPulses(
  { bins, energy, directS }: Pick<Heard, 'bins' | 'energy' | 'directS'>,
  { volume, speed, seed, middle, receiver }: FieldRequest,
  add: (atS: number, gains: Float64Array) => void,
): void {
  needAbove('fieldPulses', 'volume in cubic metres', volume, 0);
  const random = seededRandom(seed);
  const off = minus(receiver, middle);
  const gains = new Float64Array(OCTAVES.length);
  // all receivers draw the same numbers: what they hear of them differs
  const last = Math.ceil((directS + Math.hypot(off.x, off.y, off.z) / speed) / BIN_S) + bins;
  for (let step = 0; step < last; step++) {
    const sinceS = (step + 0.5) * BIN_S;
    const perStep = Math.min(DENSE_PER_S, (4 * Math.PI * speed ** 3 * sinceS ** 2) / volume) * BIN_S;
    const count = poisson(random, perStep);
    for (let i = 0; i < count; i++) {
      const sign = random.uniform() < 0.5 ? -1 : 1;
      const height = 2 * random.uniform() - 1;
      const around = 2 * Math.PI * random.uniform();
      const wide = Math.sqrt(1 - height * height);
      const going = { x: wide * Math.cos(around), y: wide * Math.sin(around), z: height };
      const atS = (step + random.uniform()) * BIN_S + dot(off, going) / speed;
      const bin = Math.floor((atS - directS) / BIN_S);
      if (bin < 0 || bin >= bins) continue;
      for (let o = 0; o < gains.length; o++) gains[o] = sign * Math.sqrt(energy[o * bins + bin]! / perStep);
      add(atS, gains);
    }
  }
}
