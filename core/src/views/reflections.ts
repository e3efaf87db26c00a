import { findArrival } from '../measure/index.js';
import type { ImpulseResponse } from '../signal/index.js';
import { energyTimeDb } from './timeCurves.js';

/** A single strong arrival after the direct sound. */
export interface Reflection {
  /** after the direct sound, seconds */
  delayS: number;
  /** level against the direct sound, dB */
  levelDb: number;
  /** by how much its way is longer, metres */
  longerM: number;
}

/** Nearer than this it melts with the direct sound; later than this it is the room's decay. */
const FROM_S = 0.0008;
const TO_S = 0.03;
/** Louder than this against the direct sound, and a clear peak of its surroundings. */
const STRONG_DB = -15;
const CLEAR_DB = 3;

/** Strong reflections within 30 ms, in the order in which they arrive; none for a response of zeros. */
export function findReflections(impulse: ImpulseResponse, speedOfSound: number): Reflection[] {
  const arrival = findArrival(impulse);
  if (!arrival) return [];
  const { rate, zero } = impulse;
  const curve = energyTimeDb(impulse);
  const direct = zero + Math.round(arrival.peakS * rate);
  const reach = Math.round(0.0004 * rate);
  const found: Reflection[] = [];
  for (let i = direct + Math.round(FROM_S * rate); i < Math.min(curve.length, direct + TO_S * rate); i++) {
    const here = curve[i]!;
    if (here < curve[direct]! + STRONG_DB) continue;
    let [isPeak, before, after] = [true, Infinity, Infinity];
    for (let j = 1; j <= reach; j++) {
      if (curve[i - j]! > here || curve[i + j]! >= here) isPeak = false;
      before = Math.min(before, curve[i - j]!);
      after = Math.min(after, curve[i + j]!);
    }
    if (!isPeak || here - Math.max(before, after) < CLEAR_DB) continue;
    const delayS = (i - direct) / rate;
    found.push({ delayS, levelDb: here - curve[direct]!, longerM: delayS * speedOfSound });
  }
  return found;
}
