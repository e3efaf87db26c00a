import { minus, type Point } from '../geometry/index.js';
import { OCTAVES, roomStatistics, speedOfSound, type Lows, type PerOctave } from '../room/index.js';
import { binFrequencies, cosineStep, type ComplexTrace } from '../signal/index.js';
import type { Scene } from '../tracing/index.js';
import { admittanceOf, isInRoom, roomGrid, waveSteps, type NoGrid, type RoomGrid } from '../waves/index.js';
import { EAR_PLACES, type Hearer } from './head.js';
import type { RoomRun } from './run.js';

/** How the lows of a run are worked out. */
export interface LowsPlan {
  /** below, waves are worked out; above, rays tell (Schroeder's frequency, 200 Hz at most) */
  upToHz: number;
  /** about so large is a cell, metres */
  stepM: number;
}

const HZ = { least: 30, most: 200 };
/** Waves and rays share what lies so far to both sides of where they are joined. */
const JOINED = 1.2;
/** Cells to a wave: at the highest frequency waves run half a percent too slow. */
const TURN_PER_CELL = 0.42;
/** Responses fade over this share of their end. */
const FADED = 0.1;

/** Up to where a run needs waves. */
export function lowsPlan(
  { faces, volume, air }: Pick<RoomRun, 'faces' | 'volume' | 'air'>,
  scene: Scene,
): LowsPlan {
  const surfaces = faces.map(({ absorption }, f) => ({ area: scene.areas[f]!, absorption }));
  const { schroederHz } = roomStatistics(surfaces, volume, air);
  const upToHz = Math.min(HZ.most, Math.max(HZ.least, schroederHz));
  return {
    upToHz,
    stepM: (TURN_PER_CELL * speedOfSound(air.temperatureC)) / (2 * Math.PI * JOINED * upToHz),
  };
}

/** Waves share in what lies below, Hz. */
export const lowsReachHz = ({ upToHz }: Pick<LowsPlan, 'upToHz'>): number => JOINED * upToHz;

/** So many octaves have a share in the lows. */
export const lowsOctaves = ({ upToHz }: Pick<LowsPlan, 'upToHz'>): number =>
  OCTAVES.filter((_, o) => o === 0 || OCTAVES[o - 1]! < JOINED * upToHz).length;

/** A receiver and what lies beside it on each axis, so that one knows how the pressure slopes there. */
export interface LowsPoints {
  middle: Point;
  /** on each axis: before and behind, and how far apart, metres */
  pairs: { before: Point; behind: Point; apartM: number }[];
}

/** What waves bring to a receiver. */
export interface LowsHeard extends LowsPlan {
  /** Hz */
  rate: number;
  cells: number;
  /** `[octave][source]`: responses at the middle, then of each axis before and behind, as with what surfaces swallow in that octave */
  octaves: Float64Array[][][];
  apartM: number[];
}

/** Cells of a run's room, from its first source on. @returns why there are none */
export const gridOfRun = (run: RoomRun, scene: Scene, { stepM }: LowsPlan): RoomGrid | NoGrid =>
  roomGrid(scene, run.sources[0]!.position, stepM);

/**
 * Waves from all sources of a run to one of its receivers: for each octave that is needed one run with what surfaces swallow in it. Tells now and
 * then the share that is done.
 * @throws RangeError for a source or receiver that is not in the room
 */
export function* lowsSteps(
  run: RoomRun,
  plan: LowsPlan,
  grid: RoomGrid,
  receiver: Point,
): Generator<number, LowsHeard> {
  const speed = speedOfSound(run.air.temperatureC);
  const { middle, pairs } = pointsAt(grid, receiver);
  const points = [middle, ...pairs.flatMap((p) => [p.before, p.behind])];
  const needed = lowsOctaves(plan);
  const runs = needed * run.sources.length;
  let rate = 0;
  let done = 0;
  const octaves: Float64Array[][][] = [];
  for (let o = 0; o < needed; o++) {
    const admittance = Float64Array.from(run.faces, (f) => admittanceOf(f.absorption[o]!));
    const own: Float64Array[][] = [];
    for (const { position } of run.sources) {
      const steps = waveSteps(grid, admittance, position, points, speed, run.lengthS);
      let next = steps.next();
      for (; !next.done; next = steps.next()) yield (done + next.value) / runs;
      done++;
      ({ rate } = next.value);
      own.push(next.value.samples);
    }
    octaves.push(own);
  }
  return { ...plan, rate, cells: grid.cells, octaves, apartM: pairs.map((p) => p.apartM) };
}

/**
 * Waves from all sources of a run to all of its receivers at once, at their middles alone: for each source and each octave that is needed one run.
 * @returns of each receiver; null where it is outside, as it is from a source that is
 */
export function* lowsOfRunSteps(
  run: RoomRun,
  plan: LowsPlan,
  grid: RoomGrid,
): Generator<number, (LowsHeard | null)[]> {
  const speed = speedOfSound(run.air.temperatureC);
  const { sources, receivers } = run;
  const isHeard = receivers.map(({ position }) => isInRoom(grid, position));
  if (!sources.every(({ position }) => isInRoom(grid, position))) return receivers.map(() => null);
  const points = receivers.filter((_, r) => isHeard[r]).map((r) => r.position);
  const needed = lowsOctaves(plan);
  const found: { samples: Float64Array[]; rate: number }[][] = [];
  for (let o = 0; o < needed; o++) {
    const admittance = Float64Array.from(run.faces, (f) => admittanceOf(f.absorption[o]!));
    const own: { samples: Float64Array[]; rate: number }[] = [];
    for (const [s, { position }] of sources.entries()) {
      const steps = waveSteps(grid, admittance, position, points, speed, run.lengthS);
      let next = steps.next();
      for (; !next.done; next = steps.next()) yield (o + (s + next.value) / sources.length) / needed;
      own.push(next.value);
    }
    found.push(own);
  }
  let at = 0;
  return isHeard.map((is): LowsHeard | null => {
    if (!is) return null;
    const index = at++;
    const octaves = found.map((own) => own.map(({ samples }) => [samples[index]!]));
    return { ...plan, rate: found[0]![0]!.rate, cells: grid.cells, octaves, apartM: [0, 0, 0] };
  });
}

/** The same in one go. */
export function lowsAt(...of: Parameters<typeof lowsSteps>): LowsHeard {
  const steps = lowsSteps(...of);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/** Beside a wall there is nothing behind it: then the slope is that of the other side. */
function pointsAt(grid: RoomGrid, middle: Point): LowsPoints {
  const pairs = (['x', 'y', 'z'] as const).map((axis, d) => {
    const moved = (by: number) => ({ ...middle, [axis]: middle[axis] + by });
    const [before, behind] = [-1, 1].map((way) => {
      const beside = moved(way * grid.steps[d]!);
      return isInRoom(grid, beside) ? beside : middle;
    }) as [Point, Point];
    return { before, behind, apartM: minus(behind, before)[axis] };
  });
  return { middle, pairs };
}

/** Where in a response the waves lie. */
export interface LowsInto {
  rate: number;
  /** of the transform */
  size: number;
  /** index of the direct sound, and how long after the source it comes, seconds */
  zero: number;
  directS: number;
  /** of each source: how much it sends, dB, how late it plays, seconds, and whether it is turned over */
  sources: { powerDb: PerOctave; delayS: number; inverted?: boolean }[];
  speed: number;
}

/** The lows of each channel of a hearer, to be joined with what rays bring. @param facing radians counter-clockwise from x */
export function lowsOf(heard: LowsHeard, hearer: Hearer, facing: number, into: LowsInto): Lows[] {
  const { size, rate, speed } = into;
  const frequency = binFrequencies(size, rate);
  const upTo = Math.min(frequency.length, Math.ceil((JOINED * heard.upToHz * size) / rate) + 1);
  const [c, s] = [Math.cos(facing), Math.sin(facing)];
  const channels = channelsOf(hearer, c, s);
  // who asks for no slope needs the middle alone
  const points = channels.some(({ slope }) => slope.some((by) => by !== 0))
    ? heard.octaves[0]![0]!.length
    : 1;
  const octaves = heard.octaves.map((sources, o) => spectraAt(heard, sources, o, points, upTo, into));
  return channels.map(({ level, slope, perWaveNumber }) => ({
    upToHz: heard.upToHz,
    octaves: octaves.map((spectra): ComplexTrace => {
      const re = new Float64Array(frequency.length);
      const im = new Float64Array(frequency.length);
      for (let k = 1; k < upTo; k++) {
        let [a, b] = [level * spectra[0]!.re[k]!, level * spectra[0]!.im[k]!];
        slope.forEach((by, d) => {
          const apart = heard.apartM[d]!;
          if (by === 0 || apart === 0) return;
          const [before, behind] = [spectra[1 + 2 * d]!, spectra[2 + 2 * d]!];
          const [x, y] = [
            (by * (behind.re[k]! - before.re[k]!)) / apart,
            (by * (behind.im[k]! - before.im[k]!)) / apart,
          ];
          if (perWaveNumber) {
            // of a wave that comes along an axis the slope is j k times its pressure
            const waveNumber = (2 * Math.PI * frequency[k]!) / speed;
            a += y / waveNumber;
            b -= x / waveNumber;
          } else {
            a += x;
            b += y;
          }
        });
        re[k] = a;
        im[k] = b;
      }
      return { frequency, re, im };
    }),
  }));
}

/** What a channel takes of the pressure, and of its slope along x, y and z. */
interface LowsChannel {
  level: number;
  slope: number[];
  /** of the slope against the wave number: the direction in which a wave comes */
  perWaveNumber: boolean;
}

function channelsOf(hearer: Hearer, c: number, s: number): LowsChannel[] {
  switch (hearer) {
    case 'one ear':
      return [{ level: 1, slope: [0, 0, 0], perWaveNumber: false }];
    case 'two ears':
      return EAR_PLACES.map(({ x, y }) => ({
        level: 1,
        slope: [c * x - s * y, s * x + c * y, 0],
        perWaveNumber: false,
      }));
    case 'ambisonics': {
      const eight = (x: number, y: number, z: number) => ({
        level: 0,
        slope: [x, y, z],
        perWaveNumber: true,
      });
      return [
        { level: 1, slope: [0, 0, 0], perWaveNumber: false },
        eight(-s, c, 0),
        eight(0, 0, 1),
        eight(c, s, 0),
      ];
    }
  }
}

/** Spectra at the first of the points of all sources together, as far as the lows go, in the time of the response. */
function spectraAt(
  { rate: own }: LowsHeard,
  sources: Float64Array[][],
  octave: number,
  points: number,
  upTo: number,
  { rate, size, zero, directS, sources: sent }: LowsInto,
): { re: Float64Array; im: Float64Array }[] {
  // what has not died away at the end would ring on in the spectrum
  const ends = (n: number, of: number) => cosineStep(n, of, (1 - FADED) * of);
  return Array.from({ length: points }, (_, p) => {
    const re = new Float64Array(upTo);
    const im = new Float64Array(upTo);
    sources.forEach((at, i) => {
      const samples = at[p]!;
      const faded = samples.map((v, n) => v * ends(n, samples.length));
      const { powerDb, delayS, inverted } = sent[i]!;
      const gain = (inverted ? -1 : 1) * 10 ** (powerDb[octave]! / 20);
      if (gain === 0) return;
      for (let k = 1; k < upTo; k++) {
        const turn = (2 * Math.PI * k * rate) / size;
        const [stepRe, stepIm] = [Math.cos(turn / own), -Math.sin(turn / own)];
        const start = turn * (directS - delayS - zero / rate);
        let [c, s] = [gain * Math.cos(start), gain * Math.sin(start)];
        let [x, y] = [0, 0];
        for (let n = 0; n < samples.length; n++) {
          const v = faded[n]!;
          x += v * c;
          y += v * s;
          [c, s] = [c * stepRe - s * stepIm, c * stepIm + s * stepRe];
        }
        re[k] = re[k]! + x;
        im[k] = im[k]! + y;
      }
    });
    return { re, im };
  });
}
