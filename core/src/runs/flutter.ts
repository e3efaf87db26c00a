import { dot, meanPoint, minus, type Point } from '../geometry/index.js';
import { speedOfSound } from '../room/index.js';
import {
  BIN_S,
  energyOverTime,
  mirroredArrivals,
  planeThrough,
  sceneOf,
  Tracer,
  type Arrival,
  type Heard,
  type TracedReceiver,
  type TracedSource,
} from '../tracing/index.js';
import type { RunSetting } from './readReceiver.js';

/** A train of pulses between two faces, at a receiver. */
export interface Flutter {
  /** the two faces, by their index */
  faces: readonly [number, number];
  periodS: number;
  /** so many that stand out, one after the other */
  pulses: number;
  /** by how much the most of them does, dB */
  standsOutDb: number;
}

/** Faces look at each other when their normals lie this near to one line: half a degree. */
const ALONG = Math.cos((0.5 * Math.PI) / 180);
/** Pulses are followed up to so many reflections; the first ones are single echoes. */
const [FIRST, LAST] = [3, 40];
/** A pulse stands out when it has so much more energy than all else that arrives within its period, dB; as many of them in a row are a train. */
const STANDS_OUT_DB = 3;
const LEAST_PULSES = 4;
/** Weaker pulses than this against the strongest millisecond are not heard, dB. */
const HEARD_DB = -45;
/** 500 Hz to 2 kHz. */
const LOOKED_AT = [3, 4, 5];

/**
 * The train of pulses that stands out most; null where none does.
 * @param heard of the source at the receiver, all of it
 */
export function findFlutter(
  { faces, air, lengthS }: RunSetting,
  source: TracedSource,
  receiver: TracedReceiver,
  heard: Heard,
): Flutter | null {
  const planes = faces.map(({ corners }) => ({ n: planeThrough(corners).n, middle: meanPoint(corners) }));
  const tracer = new Tracer(sceneOf(faces));
  const energies = LOOKED_AT.map((o) => energyOverTime(heard, o));
  const all = energies[0]!.map((_, b) => energies.reduce((sum, e) => sum + e[b]!, 0));
  let best: Flutter | null = null;
  for (let a = 0; a < faces.length; a++)
    for (let b = a + 1; b < faces.length; b++) {
      const facing = dot(planes[a]!.n, planes[b]!.n);
      if (Math.abs(facing) < ALONG) continue;
      const apart = Math.abs(dot(planes[a]!.n, minus(planes[b]!.middle, planes[a]!.middle)));
      if (apart < 0.5) continue;
      const request = { faces: [faces[a]!, faces[b]!], source, receiver, mirrored: LAST, air };
      const ways = mirroredArrivals(request, lengthS).filter(
        (way) => way.faces.length >= FIRST && isClear(tracer, source.position, way, receiver.position),
      );
      const periodS = (2 * apart) / speedOfSound(air.temperatureC);
      const found = trainIn(ways, all, periodS);
      if (found && (!best || found.standsOutDb > best.standsOutDb))
        best = { faces: [a, b], periodS, ...found };
    }
  return best;
}

/** Whether nothing else stands in a way that was found between two faces alone. */
function isClear(tracer: Tracer, from: Point, { points }: Arrival, to: Point): boolean {
  const all = [from, ...points, to];
  return all.slice(1).every((b, i) => {
    const a = all[i]!;
    return tracer.isFree(a.x, a.y, a.z, b.x, b.y, b.z);
  });
}

function trainIn(
  ways: readonly { laterS: number; energy: Float64Array }[],
  all: Float64Array,
  periodS: number,
): { pulses: number; standsOutDb: number } | null {
  // pulses that arrive within a millisecond are one
  const pulses = new Map<number, number>();
  for (const { laterS, energy } of ways) {
    const bin = Math.floor(laterS / BIN_S);
    if (bin >= all.length) continue;
    pulses.set(bin, (pulses.get(bin) ?? 0) + LOOKED_AT.reduce((sum, o) => sum + energy[o]!, 0));
  }
  const half = Math.max(2, Math.round(periodS / BIN_S / 2));
  // rays bring a pulse a little early or late, and more or less of it by chance: what lies beside pulses is all else
  const isPulse = new Uint8Array(all.length);
  for (const bin of pulses.keys()) isPulse.fill(1, Math.max(0, bin - 1), bin + 2);
  const heard = 10 ** (HEARD_DB / 10) * all.reduce((a, b) => Math.max(a, b), 0);
  let [run, longest, most] = [0, 0, -Infinity];
  for (const bin of [...pulses.keys()].sort((x, y) => x - y)) {
    const [from, to] = [Math.max(0, bin - half), Math.min(all.length, bin + half)];
    let [rest, counted] = [0, 0];
    for (let k = from; k < to; k++)
      if (!isPulse[k]) {
        rest += all[k]!;
        counted++;
      }
    const db = 10 * Math.log10(pulses.get(bin)! / ((rest * (to - from)) / Math.max(1, counted) + 1e-30));
    if (db < STANDS_OUT_DB || pulses.get(bin)! < heard) {
      run = 0;
      continue;
    }
    run++;
    most = Math.max(most, db);
    longest = Math.max(longest, run);
  }
  return longest >= LEAST_PULSES ? { pulses: longest, standsOutDb: Math.min(60, most) } : null;
}
