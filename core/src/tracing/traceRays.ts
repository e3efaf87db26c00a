import type { Point } from '../geometry/index.js';
import { needAbove, needNumber, needWhole, needWithin } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { seededRandom, seedFrom, type Random } from '../signal/index.js';
import { ballRadius, freeShare, usualRadius } from './balls.js';
import { directionTable, type DirectionEnergies, type DirectionTable } from './directionTable.js';
import { Tracer } from './firstHit.js';
import { MIDDLE_OCTAVES, sectorOf, SECTORS, stretchOf, STRETCHES_S } from './sectors.js';
import type { Scene } from './scene.js';

/** A point from which sound goes out. */
export interface TracedSource {
  position: Point;
  /**
   * energy per octave that goes into a direction (unit vector), against what goes everywhere from a source whose level at 1 m is 0 dB; null for
   * one that sends the same everywhere
   */
  emission: DirectionEnergies | null;
}

/** A point where sound is heard, and what counts as lateral there. */
export interface TracedReceiver {
  position: Point;
  /** unit vector from one ear to the other: what comes along it is lateral (figure of eight) */
  lateral: Point;
  /** share of the energy per octave that it takes of what comes from a direction (unit vector, as it sees it); all of it when absent */
  takes?: DirectionEnergies;
}

export interface RayRequest {
  source: TracedSource;
  receivers: readonly TracedReceiver[];
  /** of this group, 1 to 10 million */
  rays: number;
  /** how long a response is, seconds after the direct sound would arrive */
  lengthS: number;
  /** mirrored ways are known up to this number of reflections, and are left to those */
  mirrored: number;
  /** m/s */
  speed: number;
  /** groups of the same seed and other numbers are independent of each other */
  seed: number;
  group: number;
  /**
   * energies alone are wanted, no lateral ones, counts or directions; and what is scattered late and far away rains on one receiver by chance,
   * and so much heavier, and not on each: quicker with several receivers, and no less right on the mean
   */
  isThin?: boolean;
}

/** Numbers in a row: as they are worked out, or as they are kept. */
export type Row = Float64Array | Float32Array;

/** What the rays of a group bring: energies against that of the direct sound at 1 m, without what the air swallows. */
export interface RayGroup {
  rays: number;
  /** 1 ms each, from when the direct sound arrives or would: of each receiver `OCTAVES.length` rows of `bins` */
  bins: number;
  energy: Row;
  /** the same by the square of its cosine to the lateral axis */
  lateral: Row;
  /** reflections that arrived, one count for each contribution: of each receiver a row of `bins` */
  counts: Row;
  /**
   * where it comes from, octaves of 500 Hz to 2 kHz together: of each receiver, for each of `STRETCHES_S`, the energy from each of
   * `SECTORS`; null of groups that were kept without
   */
  directions: Row | null;
  /** of all that went out, per octave: what faces swallowed, what got out, what was not followed any further */
  absorbed: Row;
  escaped: Row;
  cut: Row;
  sent: Row;
  /** rays that got out, and where the first of them did */
  leaks: number;
  leakAt: Point | null;
}

/** Seconds of a bin. */
export const BIN_S = 0.001;
const BANDS = OCTAVES.length;
const PER_CELL = 2 * BANDS;
const [MIDDLE] = MIDDLE_OCTAVES;
/** Rays are followed until this little of them is left: 75 dB. */
const LEFT = 10 ** -7.5;
/**
 * So many reflections each octave scatters by its own share; what comes later has lost its direction, and goes by what is left in all of
 * them together: else their weights would drift apart, and few rays would bring most of the energy.
 */
const OWN_SHARES = 6;
/** What scatters nearer than this to a receiver counts as if it were so far away, metres. */
const NEAREST_M = 0.1;
/** Thin rain falls on all that are nearer: the square of how far, as a share of the area of all faces, as a single ray weighs the more the smaller that is. */
const NEAR_SHARE = 0.015;

/**
 * Sends rays out of a source and gathers what they bring to each receiver: what is scattered goes there straight from where it was scattered
 * (diffuse rain, Schroeder and Vorlaender), by Lambert's law; what comes from a mirror is gathered in a ball around it, by the way
 * that a ray goes through it. Ways by mirrors alone, up to `mirrored` reflections, and the direct sound are left out.
 * @param onRay told after each ray; false ends it
 * @throws RangeError for no rays, no receivers, lengths and speeds beyond reason
 */
export function traceRays(scene: Scene, request: RayRequest, onRay?: (done: number) => boolean): RayGroup {
  const { rays, receivers, lengthS, speed } = request;
  needWhole('traceRays', 'number of rays', rays, 1, 1e7);
  needWhole('traceRays', 'number of receivers', receivers.length, 1, 10_000);
  needWithin('traceRays', 'length in s', lengthS, 0.01, 60);
  needAbove('traceRays', 'speed of sound in m/s', speed, 0);
  needWhole('traceRays', 'mirrored order', request.mirrored, 0, 100);
  for (const { position: p } of [request.source, ...receivers])
    needNumber('traceRays', 'position', p.x + p.y + p.z);
  const bins = Math.ceil(lengthS / BIN_S);
  const group: RayGroup = {
    rays,
    bins,
    energy: new Float64Array(receivers.length * BANDS * bins),
    lateral: new Float64Array(receivers.length * BANDS * bins),
    counts: new Float64Array(receivers.length * bins),
    directions: request.isThin ? null : new Float64Array(receivers.length * STRETCHES_S.length * SECTORS),
    absorbed: new Float64Array(BANDS),
    escaped: new Float64Array(BANDS),
    cut: new Float64Array(BANDS),
    sent: new Float64Array(BANDS),
    leaks: 0,
    leakAt: null,
  };
  const walk = new Walk(scene, request, group);
  for (let r = 0; r < rays; r++) {
    walk.follow(r);
    if (onRay && !onRay(r + 1)) break;
  }
  walk.end();
  return group;
}

/** One ray after the other. */
class Walk {
  private readonly tracer: Tracer;
  private readonly random: Random;
  /** of each receiver: where it is, the radius of its ball, its lateral axis, and how far the source is */
  private readonly at: Float64Array;
  /** of each receiver: what a metre of way through its ball counts, 1 over its volume */
  private readonly perM: Float64Array;
  private readonly takes: readonly (DirectionTable | null)[];
  private readonly energy = new Float64Array(BANDS);
  private readonly rain = new Float64Array(BANDS);
  private readonly turn: Float64Array;
  private readonly binsPerM: number;
  private readonly longest: number;
  /** `[receiver][bin]`, of each its octaves of energy and of what is lateral: what is added to at once lies together */
  private readonly grid: Float64Array;
  /** null where energies alone are wanted */
  private readonly directions: Float64Array | null;
  /** square metres, see `NEAR_SHARE` */
  private readonly near2: number;
  /** of each bin */
  private readonly stretches: Uint8Array;

  constructor(
    private readonly scene: Scene,
    private readonly request: RayRequest,
    private readonly out: RayGroup,
  ) {
    const { source, receivers, seed, group, speed, lengthS } = request;
    this.tracer = new Tracer(scene);
    this.random = seededRandom(seedFrom(seed, `rays ${group}`));
    this.turn = randomTurn(this.random);
    this.binsPerM = 1 / (speed * BIN_S);
    const s = source.position;
    const balls = receivers.map(({ position: p, takes }) => {
      const radius = takes ? usualRadius(scene) : ballRadius(scene, p);
      const share = takes ? freeShare(this.tracer, p, radius) : 1;
      return { radius, perM: 1 / (share * (4 / 3) * Math.PI * radius ** 3) };
    });
    this.at = Float64Array.from(
      receivers.flatMap(({ position: p, lateral: l }, r) => [
        ...[p.x, p.y, p.z, balls[r]!.radius, l.x, l.y, l.z],
        Math.hypot(p.x - s.x, p.y - s.y, p.z - s.z),
      ]),
    );
    this.perM = Float64Array.from(balls, (b) => b.perM);
    this.takes = receivers.map(({ takes }) => (takes ? directionTable(takes) : null));
    let furthest = 0;
    for (let i = 7; i < this.at.length; i += 8) furthest = Math.max(furthest, this.at[i]!);
    this.longest = furthest + lengthS * speed;
    this.grid = new Float64Array(receivers.length * out.bins * PER_CELL);
    this.directions = out.directions as Float64Array | null;
    this.near2 = NEAR_SHARE * scene.areas.reduce((sum, area) => sum + area, 0);
    this.stretches = Uint8Array.from({ length: out.bins }, (_, b) => stretchOf((b + 0.5) * BIN_S));
  }

  /** Brings what was gathered into rows of bins. */
  end(): void {
    const { grid, out } = this;
    const { bins } = out;
    for (let r = 0, i = 0; r < out.counts.length / bins; r++)
      for (let b = 0; b < bins; b++, i += PER_CELL)
        for (let o = 0; o < BANDS; o++) {
          const at = (r * BANDS + o) * bins + b;
          out.energy[at] = grid[i + o]!;
          out.lateral[at] = grid[i + BANDS + o]!;
        }
  }

  follow(ray: number): void {
    const { scene, request, out, energy, random, tracer } = this;
    const { source, rays, mirrored } = request;
    let { x, y, z } = source.position;
    // evenly over the sphere, the whole of it turned at random
    const height = 1 - (2 * ray + 1) / rays;
    const around = ray * Math.PI * (3 - Math.sqrt(5));
    const wide = Math.sqrt(1 - height * height);
    const [a, b] = [wide * Math.cos(around), wide * Math.sin(around)];
    const { turn } = this;
    let dx = turn[0]! * a + turn[1]! * b + turn[2]! * height;
    let dy = turn[3]! * a + turn[4]! * b + turn[5]! * height;
    let dz = turn[6]! * a + turn[7]! * b + turn[8]! * height;
    if (source.emission) source.emission(dx, dy, dz, energy);
    else energy.fill(1);
    let most = 0;
    for (let o = 0; o < BANDS; o++) {
      energy[o] = (energy[o]! * 4 * Math.PI) / rays;
      out.sent[o] = out.sent[o]! + energy[o]!;
      if (energy[o]! > most) most = energy[o]!;
    }
    const least = most * LEFT;
    let way = 0;
    let order = 0;
    let isMirrored = true;
    let cameScattered = false;
    for (;;) {
      if (!tracer.firstHit(x, y, z, dx, dy, dz)) {
        for (let o = 0; o < BANDS; o++) out.escaped[o] = out.escaped[o]! + energy[o]!;
        out.leakAt ??= { x, y, z };
        out.leaks++;
        return;
      }
      const { distance, face } = tracer;
      if (!cameScattered && !(isMirrored && order <= mirrored))
        this.gather(x, y, z, dx, dy, dz, distance, way);
      x += distance * dx;
      y += distance * dy;
      z += distance * dz;
      way += distance;
      order++;
      let nx = scene.normals[3 * face]!;
      let ny = scene.normals[3 * face + 1]!;
      let nz = scene.normals[3 * face + 2]!;
      let along = dx * nx + dy * ny + dz * nz;
      if (along > 0) {
        nx = -nx;
        ny = -ny;
        nz = -nz;
        along = -along;
      }
      let [left, scattered] = [0, 0];
      for (let o = 0; o < BANDS; o++) {
        const e = energy[o]!;
        const kept = e * (1 - scene.absorption[8 * face + o]!);
        out.absorbed[o] = out.absorbed[o]! + e - kept;
        energy[o] = kept;
        left += kept;
        scattered += kept * scene.scattering[8 * face + o]!;
      }
      const share = left > 0 ? scattered / left : 0;
      const isOwn = order <= OWN_SHARES;
      if (share > 0) {
        for (let o = 0; o < BANDS; o++)
          this.rain[o] = (energy[o]! * (isOwn ? scene.scattering[8 * face + o]! : share)) / Math.PI;
        this.rainFrom(x, y, z, nx, ny, nz, way, order > OWN_SHARES);
      }
      most = 0;
      cameScattered = random.uniform() < share;
      for (let o = 0; o < BANDS; o++) {
        if (isOwn) {
          const s = scene.scattering[8 * face + o]!;
          energy[o] = energy[o]! * (cameScattered ? s / share : (1 - s) / (1 - share));
        }
        if (energy[o]! > most) most = energy[o]!;
      }
      if (most <= least || way > this.longest) {
        for (let o = 0; o < BANDS; o++) out.cut[o] = out.cut[o]! + energy[o]!;
        return;
      }
      if (cameScattered) {
        isMirrored = false;
        [dx, dy, dz] = this.lambert(nx, ny, nz);
      } else {
        dx -= 2 * along * nx;
        dy -= 2 * along * ny;
        dz -= 2 * along * nz;
      }
    }
  }

  /** What a ray brings to the balls that it goes through, by the way within them. */
  private gather(
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    distance: number,
    way: number,
  ): void {
    const { at } = this;
    for (let r = 0, k = 0; k < at.length; r++, k += 8) {
      const px = at[k]! - x;
      const py = at[k + 1]! - y;
      const pz = at[k + 2]! - z;
      const middle = px * dx + py * dy + pz * dz;
      const radius = at[k + 3]!;
      const half2 = radius * radius - (px * px + py * py + pz * pz - middle * middle);
      if (!(half2 > 0)) continue;
      const half = Math.sqrt(half2);
      const from = Math.max(0, middle - half);
      const to = Math.min(distance, middle + half);
      if (!(to > from)) continue;
      const weight = (to - from) * this.perM[r]!;
      const bin = Math.floor((way + (from + to) / 2 - at[k + 7]!) * this.binsPerM);
      this.add(r, bin, this.energy, weight, dx, dy, dz);
    }
  }

  /** What is scattered at a point of a face, straight to each receiver that sees it. */
  private rainFrom(
    x: number,
    y: number,
    z: number,
    nx: number,
    ny: number,
    nz: number,
    way: number,
    isLate: boolean,
  ): void {
    const { at, scene, tracer, request, near2 } = this;
    const receivers = at.length / 8;
    const isThin = isLate && request.isThin === true && receivers > 1;
    const chosen = isThin ? Math.floor(this.random.uniform() * receivers) : 0;
    for (let r = 0, k = 0; r < receivers; r++, k += 8) {
      const rx = at[k]!;
      const ry = at[k + 1]!;
      const rz = at[k + 2]!;
      const px = rx - x;
      const py = ry - y;
      const pz = rz - z;
      const far2 = px * px + py * py + pz * pz;
      // what is near counts much already: it rains on each
      const isByChance = isThin && far2 > near2;
      if (isByChance && r !== chosen) continue;
      const up = px * nx + py * ny + pz * nz;
      if (!(up > 0)) continue;
      const far = Math.sqrt(far2);
      const bin = Math.floor((way + far - at[k + 7]!) * this.binsPerM);
      if (bin >= this.out.bins) continue;
      if (!scene.isConvex && !tracer.isFree(x, y, z, rx, ry, rz)) continue;
      const weight = ((isByChance ? receivers : 1) * up) / far / Math.max(far2, NEAREST_M * NEAREST_M);
      this.add(r, bin, this.rain, weight, px / far, py / far, pz / far);
    }
  }

  /** @param from below 0 by no more than the ball is wide @param x y z unit vector in which it goes */
  private add(
    r: number,
    from: number,
    energy: Float64Array,
    weight: number,
    x: number,
    y: number,
    z: number,
  ): void {
    const { out, at } = this;
    const { bins } = out;
    const bin = from < 0 ? 0 : from;
    if (bin >= bins) return;
    const takes = this.takes[r];
    const taken = takes ? takes.at(-x, -y, -z) : 0;
    const { grid } = this;
    let i = (r * bins + bin) * PER_CELL;
    if (!this.directions) {
      for (let o = 0; o < BANDS; o++, i++)
        grid[i] = grid[i]! + energy[o]! * weight * (takes ? takes.values[taken + o]! : 1);
      return;
    }
    const side = (x * at[8 * r + 4]! + y * at[8 * r + 5]! + z * at[8 * r + 6]!) ** 2;
    for (let o = 0; o < BANDS; o++, i++) {
      const e = takes ? energy[o]! * weight * takes.values[taken + o]! : energy[o]! * weight;
      grid[i] = grid[i]! + e;
      grid[i + BANDS] = grid[i + BANDS]! + e * side;
    }
    out.counts[r * bins + bin] = out.counts[r * bins + bin]! + 1;
    const cell = (r * STRETCHES_S.length + this.stretches[bin]!) * SECTORS + sectorOf(-x, -y, -z);
    const middle = energy[MIDDLE]! + energy[MIDDLE + 1]! + energy[MIDDLE + 2]!;
    this.directions[cell] = this.directions[cell]! + middle * weight;
  }

  /** A direction off a face by Lambert's law: by the cosine to its normal. */
  private lambert(nx: number, ny: number, nz: number): [number, number, number] {
    const { random } = this;
    // a point on the unit sphere, put on top of the normal
    const height = 2 * random.uniform() - 1;
    const around = 2 * Math.PI * random.uniform();
    const wide = Math.sqrt(1 - height * height);
    const x = nx + wide * Math.cos(around);
    const y = ny + wide * Math.sin(around);
    const z = nz + height;
    const length = Math.sqrt(x * x + y * y + z * z);
    return length > 1e-9 ? [x / length, y / length, z / length] : [nx, ny, nz];
  }
}

/** A turn of all directions that is as likely as any other, 9 numbers by rows (Shoemake 1992). */
function randomTurn(random: Random): Float64Array {
  const [u, v, w] = [random.uniform(), 2 * Math.PI * random.uniform(), 2 * Math.PI * random.uniform()];
  const [a, b] = [Math.sqrt(1 - u), Math.sqrt(u)];
  const [x, y, z, s] = [a * Math.sin(v), a * Math.cos(v), b * Math.sin(w), b * Math.cos(w)];
  return Float64Array.of(
    1 - 2 * (y * y + z * z),
    2 * (x * y - z * s),
    2 * (x * z + y * s),
    2 * (x * y + z * s),
    1 - 2 * (x * x + z * z),
    2 * (y * z - x * s),
    2 * (x * z - y * s),
    2 * (y * z + x * s),
    1 - 2 * (x * x + y * y),
  );
}
