import { distanceBetween, dot, lengthOf, minus, type Point } from '../geometry/index.js';
import { needWhole } from '../limits/index.js';
import { airAbsorption, facetArrivals, OCTAVES, speedOfSound, type Air } from '../room/index.js';
import type { TracedFace } from './scene.js';
import { SECTORS, STRETCHES_S } from './sectors.js';
import { BIN_S, type RayGroup, type TracedReceiver, type TracedSource } from './traceRays.js';

/** One way of sound as from mirrors, the direct one among them. */
export interface Arrival {
  /** after the direct sound arrives, or would, seconds */
  laterS: number;
  /** metres of the whole way */
  distance: number;
  /** per octave, against the direct sound at 1 m */
  energy: Float64Array;
  /** unit vector in which it goes where it arrives */
  going: Point;
  /** faces it met, in order, and where */
  faces: readonly number[];
  points: readonly Point[];
}

/** What is heard of a source at a receiver, as energy over time. */
export interface Heard {
  /** when the direct sound arrives or would, seconds after the source sent it */
  directS: number;
  arrivals: Arrival[];
  /** everything else: per octave a row of bins of `BIN_S`, from the direct sound on; of it what is lateral */
  bins: number;
  energy: Float64Array;
  lateral: Float64Array;
  /** contributions in each bin */
  counts: Float64Array;
  /** unit vector from one ear to the other */
  axis: Point;
  /**
   * where everything else comes from, octaves of 500 Hz to 2 kHz together: for each of `STRETCHES_S` the energy from each of
   * `SECTORS`, without what the air swallows; null where it was not kept
   */
  directions: Float64Array | null;
}

export interface HeardRequest {
  faces: readonly TracedFace[];
  source: TracedSource;
  receiver: TracedReceiver;
  /** the same as the rays were told */
  mirrored: number;
  air: Air;
}

const BANDS = OCTAVES.length;
const CELLS = STRETCHES_S.length * SECTORS;

/** Ways of sound as from mirrors up to an order, with what faces swallow and scatter, air and the source's directivity. @param lengthS after the direct sound */
export function mirroredArrivals(
  { faces, source, receiver, mirrored, air }: HeardRequest,
  lengthS: number,
): Arrival[] {
  const speed = speedOfSound(air.temperatureC);
  const direct = distanceBetween(source.position, receiver.position);
  const perM = airPerM(air);
  const sent = new Float64Array(BANDS);
  return facetArrivals(faces, source.position, receiver.position, mirrored, direct + lengthS * speed)
    .map((way): Arrival => {
      const { distance, emission, points } = way;
      if (source.emission) source.emission(emission.x, emission.y, emission.z, sent);
      else sent.fill(1);
      const energy = sent.map((e, o) => {
        let kept = (e * Math.exp(-perM[o]! * distance)) / Math.max(distance, 0.1) ** 2;
        for (const f of way.faces) kept *= (1 - faces[f]!.absorption[o]!) * (1 - faces[f]!.scattering[o]!);
        return kept;
      });
      const last = minus(receiver.position, points.at(-1) ?? source.position);
      const length = lengthOf(last);
      const going =
        length > 0 ? { x: last.x / length, y: last.y / length, z: last.z / length } : { x: 1, y: 0, z: 0 };
      return { laterS: (distance - direct) / speed, distance, energy, going, faces: way.faces, points };
    })
    .filter((a) => a.energy.some((e) => e > 0))
    .sort((a, b) => a.laterS - b.laterS);
}

/** Several groups of rays as one. */
interface Summed {
  rays: number;
  energy: Float64Array;
  lateral: Float64Array;
  counts: Float64Array;
  directions: Float64Array | null;
}

/** Adds what a group brought to a receiver, as much as it has rays. @param by 1, or -1 to take it away again */
function addGroup(sum: Summed, group: RayGroup, index: number, by: 1 | -1): void {
  const { bins } = group;
  const from = index * BANDS * bins;
  const weight = by * group.rays;
  sum.rays += weight;
  for (let i = 0; i < sum.energy.length; i++) {
    sum.energy[i] = sum.energy[i]! + weight * group.energy[from + i]!;
    sum.lateral[i] = sum.lateral[i]! + weight * group.lateral[from + i]!;
  }
  for (let b = 0; b < bins; b++) sum.counts[b] = sum.counts[b]! + by * group.counts[index * bins + b]!;
  const { directions } = sum;
  if (!directions) return;
  const own = group.directions;
  if (!own) throw new RangeError('heardAt: of some groups it was not kept where it comes from');
  for (let i = 0; i < CELLS; i++) directions[i] = directions[i]! + weight * own[index * CELLS + i]!;
}

/**
 * What is heard at a receiver, from its mirrored ways and all groups of rays, with what the air swallows.
 * @param groups with the same bins @param index of the receiver among those of the groups
 * @throws RangeError for no group, or an index beyond their receivers
 */
export function heardAt(
  request: HeardRequest,
  arrivals: Arrival[],
  groups: readonly RayGroup[],
  index: number,
): Heard {
  const sum = summed(groups, index);
  return heardOf(request, arrivals, sum, keptByAir(request, sum.counts.length));
}

/** What is heard, and what would be without one group of rays, and without each of the others: so one sees how much chance is in it. */
export interface HeardInTurn {
  all: Heard;
  without: Heard[];
}

/** So many parts that are left out in turn tell of chance; more of them would take their time and tell no more. */
const MOST_TURNS = 10;

/** The same as `heardAt`, and in turn without each of the groups, of many without each tenth of them. @throws RangeError for fewer than two groups */
export function heardInTurn(
  request: HeardRequest,
  arrivals: Arrival[],
  groups: readonly RayGroup[],
  index: number,
): HeardInTurn {
  needWhole('heardInTurn', 'number of groups', groups.length, 2, 10_000);
  const sum = summed(groups, index);
  const turns = Math.min(groups.length, MOST_TURNS);
  const kept = keptByAir(request, sum.counts.length);
  return {
    all: heardOf(request, arrivals, sum, kept),
    without: Array.from({ length: turns }, (_, turn) => {
      const rest = {
        ...sum,
        energy: sum.energy.slice(),
        lateral: sum.lateral.slice(),
        counts: sum.counts.slice(),
        directions: null,
      };
      for (let g = turn; g < groups.length; g += turns) addGroup(rest, groups[g]!, index, -1);
      // where this group was all there was, rounding may leave a trace of it
      for (const row of [rest.energy, rest.lateral])
        for (let i = 0; i < row.length; i++) if (!(row[i]! > ROUNDING * sum.energy[i]!)) row[i] = 0;
      return heardOf(request, arrivals, rest, kept);
    }),
  };
}

/** A share of a sum that is nothing but its rounding. */
const ROUNDING = 1e-9;

function summed(groups: readonly RayGroup[], index: number): Summed {
  const [first] = groups;
  if (!first) throw new RangeError('heardAt: there is no group of rays');
  const { bins } = first;
  needWhole('heardAt', 'index of the receiver', index, 0, first.counts.length / bins - 1);
  const sum: Summed = {
    rays: 0,
    energy: new Float64Array(BANDS * bins),
    lateral: new Float64Array(BANDS * bins),
    counts: new Float64Array(bins),
    directions: groups.every((g) => g.directions) ? new Float64Array(CELLS) : null,
  };
  for (const group of groups) addGroup(sum, group, index, 1);
  return sum;
}

/** What the air leaves of energy in each bin of each octave. */
function keptByAir({ source, receiver, air }: HeardRequest, bins: number): Float64Array {
  const direct = distanceBetween(source.position, receiver.position);
  const speed = speedOfSound(air.temperatureC);
  const perM = airPerM(air);
  const kept = new Float64Array(BANDS * bins);
  for (let o = 0, i = 0; o < BANDS; o++)
    for (let b = 0; b < bins; b++, i++) kept[i] = Math.exp(-perM[o]! * (direct + (b + 0.5) * BIN_S * speed));
  return kept;
}

function heardOf(
  { source, receiver, air }: HeardRequest,
  arrivals: Arrival[],
  { rays, energy, lateral, counts, directions }: Summed,
  kept: Float64Array,
): Heard {
  const scaled = (of: Float64Array) => {
    const out = new Float64Array(of.length);
    for (let i = 0; i < of.length; i++) out[i] = (of[i]! * kept[i]!) / rays;
    return out;
  };
  return {
    directS: distanceBetween(source.position, receiver.position) / speedOfSound(air.temperatureC),
    arrivals,
    bins: counts.length,
    energy: scaled(energy),
    lateral: scaled(lateral),
    counts,
    axis: receiver.lateral,
    directions: directions && directions.map((e) => e / rays),
  };
}

/** Of the energy what the air swallows per metre, as an exponent, per octave. */
const airPerM = (air: Air) => OCTAVES.map((hz) => (airAbsorption(hz, air) * Math.LN10) / 10);

/** Everything that is heard in an octave, as energy per bin; with `lateral` only its lateral part. */
export function energyOverTime(
  heard: Heard,
  octave: number,
  what: 'energy' | 'lateral' = 'energy',
): Float64Array {
  needWhole('energyOverTime', 'octave', octave, 0, BANDS - 1);
  const { bins, arrivals, axis } = heard;
  const row = heard[what].slice(octave * bins, (octave + 1) * bins);
  for (const { laterS, energy, going } of arrivals) {
    const bin = Math.floor(laterS / BIN_S + 1e-9);
    if (bin < 0 || bin >= bins) continue;
    row[bin] = row[bin]! + energy[octave]! * (what === 'lateral' ? dot(going, axis) ** 2 : 1);
  }
  return row;
}
