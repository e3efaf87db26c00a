import { dot, type Point } from '../geometry/index.js';
import {
  mirroredArrivals,
  planeThrough,
  type Arrival,
  type TracedReceiver,
  type TracedSource,
} from '../tracing/index.js';
import type { RunSetting } from './readReceiver.js';

/** A curved surface that gathers what it sends back, at a receiver. */
export interface Focus {
  /** its faces, by their index */
  faces: readonly number[];
  /** so many of them send sound here at nearly the same time */
  arrivals: number;
  /** from the first to the last of these, seconds */
  withinS: number;
  /** of the strongest, after the direct sound, seconds */
  laterS: number;
  /** by how much all of them together are above the strongest: above one flat wall in its place, dB */
  gainDb: number;
}

/** Flat faces side by side are one curved surface where each turns by so much from the next, degrees: less is flat, more is a corner. */
const TURN_DEG = { least: 0.5, most: 40 };
const LEAST_FACES = 3;
/** Corners nearer than this are the same one, metres. */
const SAME_M = 1e-3;
/** What arrives within this is heard as one, seconds: half of what tells two clicks apart from one with certainty. */
const TOGETHER_S = 0.005;
/** A gain from here on is told, of so many arrivals at least; ours: two flat walls alike give 3 dB anywhere between them. */
const TOLD = { gainDb: 4, arrivals: 3 };
/** 500 Hz to 2 kHz. */
const LOOKED_AT = [3, 4, 5];

/** The curved surfaces of a room: faces that share sides and turn little from one to the next, by their index. */
export function curvedSurfaces(faces: readonly { corners: readonly Point[] }[]): number[][] {
  const normals = faces.map(({ corners }) => planeThrough(corners).n);
  const [least, most] = [TURN_DEG.most, TURN_DEG.least].map((deg) => Math.cos((deg * Math.PI) / 180)) as [
    number,
    number,
  ];
  const bySide = new Map<string, number[]>();
  faces.forEach(({ corners }, face) => {
    const keys = corners.map(({ x, y, z }) => [x, y, z].map((v) => Math.round(v / SAME_M)).join(','));
    keys.forEach((key, k) => {
      const side = [key, keys[(k + 1) % keys.length]!].sort().join(' ');
      bySide.set(side, [...(bySide.get(side) ?? []), face]);
    });
  });
  const beside = faces.map((): number[] => []);
  for (const [a, b, ...more] of bySide.values()) {
    if (b === undefined || more.length > 0) continue;
    const turn = Math.abs(dot(normals[a!]!, normals[b]!));
    if (turn < least || turn > most) continue;
    beside[a!]!.push(b);
    beside[b]!.push(a!);
  }
  const seen = new Set<number>();
  return faces.flatMap((_, first) => {
    const found: number[] = [];
    const waits = [first];
    for (let face = waits.pop(); face !== undefined; face = waits.pop()) {
      if (seen.has(face)) continue;
      seen.add(face);
      found.push(face);
      waits.push(...beside[face]!);
    }
    return found.length >= LEAST_FACES ? [found.sort((a, b) => a - b)] : [];
  });
}

/**
 * The curved surface that gathers most at a receiver, by the ways off one of its faces each; null where none does.
 * @param curved of the room, by `curvedSurfaces`
 */
export function findFocus(
  { faces, air, lengthS }: RunSetting,
  source: TracedSource,
  receiver: TracedReceiver,
  curved: readonly (readonly number[])[],
): Focus | null {
  if (curved.length === 0) return null;
  const ways = mirroredArrivals({ faces, source, receiver, mirrored: 1, air }, lengthS);
  let best: Focus | null = null;
  for (const surface of curved) {
    const own = new Set(surface);
    const off = ways.filter((way) => way.faces.length === 1 && own.has(way.faces[0]!));
    const found = gathered(off);
    if (found && (!best || found.gainDb > best.gainDb)) best = { faces: surface, ...found };
  }
  return best;
}

/** The arrivals within a short time that gain most; in the order of time. */
function gathered(ways: readonly Arrival[]): Omit<Focus, 'faces'> | null {
  let best: Omit<Focus, 'faces'> | null = null;
  ways.forEach((first, i) => {
    const together = ways.slice(i).filter((way) => way.laterS - first.laterS <= TOGETHER_S);
    if (together.length < TOLD.arrivals) return;
    const energies = together.map(({ energy }) => LOOKED_AT.reduce((sum, o) => sum + energy[o]!, 0));
    const most = Math.max(...energies);
    const gainDb = 10 * Math.log10(energies.reduce((sum, e) => sum + e, 0) / most);
    if (gainDb < TOLD.gainDb || (best && gainDb <= best.gainDb)) return;
    best = {
      arrivals: together.length,
      withinS: together.at(-1)!.laterS - first.laterS,
      laterS: together[energies.indexOf(most)]!.laterS,
      gainDb,
    };
  });
  return best;
}
