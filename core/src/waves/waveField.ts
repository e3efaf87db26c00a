import type { Point } from '../geometry/index.js';
import { needAbove, needWithin } from '../limits/index.js';
import { nativeStep } from './nativeStep.js';
import { plainStep } from './plainStep.js';
import { cellAt, type RoomGrid } from './roomGrid.js';
import { stencilOf, type FieldStep } from './stencil.js';

/** Impulse responses of a room by its waves. */
export interface WaveResponses {
  /**
   * one for each receiver, from when the source sends; a pulse of 1 is what arrives at 1 m of it in the open. Behind a high-pass of
   * second order at 2 Hz: a closed room would keep the pressure of any sound that does not add up to nothing
   */
  samples: Float64Array[];
  /** Hz */
  rate: number;
}

/** A little under the largest step in time that holds. */
const COURANT = 0.999;
/** A pulse, twice differenced. */
const DRIVE = [1, -2, 1];
const LEAST_HZ = 2;

/** What a room of cells does from one step in time to the next. */
export class Field {
  readonly stepS: number;
  private readonly by: FieldStep;
  private turn: 0 | 1 = 0;

  constructor(grid: RoomGrid, admittance: Float64Array, speed: number) {
    const { steps } = grid;
    this.stepS = COURANT / (speed * Math.sqrt(steps.reduce((sum, h) => sum + 1 / (h * h), 0)));
    const squares = steps.map((h) => ((speed * this.stepS) / h) ** 2) as [number, number, number];
    const stencil = stencilOf(grid, squares, admittance);
    this.by = nativeStep(stencil) ?? plainStep(stencil);
  }

  /** Pressures of all cells, until the next step. */
  get now(): Float64Array {
    return this.by.pressures[this.turn];
  }

  /** One step on. @param sent what goes out of some cells in it */
  advance(sent: readonly Weighted[], by: number): void {
    this.by.step(this.turn);
    this.turn = this.turn === 0 ? 1 : 0;
    if (by === 0) return;
    const { now } = this;
    for (const { cell, weight } of sent) now[cell] = now[cell]! + by * weight;
  }
}

/** Steps in time between two that are told of. */
const TOLD_EVERY = 64;

/**
 * Sound pressure over time in a room of cells: finite differences of the wave equation in space and time (Botteldooren 1995), with
 * surfaces that react locally, by one admittance each (Kowalczyk and van Walstijn 2011). Tells now and then the share that is done.
 * @param admittance of each face against that of air, 0 to 1 @param speed m/s @param lengthS of the responses
 * @throws RangeError for a source or receiver that is not in the room
 */
export function* waveSteps(
  grid: RoomGrid,
  admittance: Float64Array,
  source: Point,
  receivers: readonly Point[],
  speed: number,
  lengthS: number,
): Generator<number, WaveResponses> {
  needAbove('waveField', 'speed of sound in m/s', speed, 0);
  needWithin('waveField', 'length in s', lengthS, 1e-3, 60);
  const whereIn = (p: Point, what: string) => {
    const spread = spreadOf(grid, p);
    if (spread.length === 0) throw new RangeError(`waveField: ${what} is not in the room`);
    return spread;
  };
  const from = whereIn(source, 'the source');
  const heard = receivers.map((r, i) => whereIn(r, `receiver ${i + 1}`));
  const field = new Field(grid, admittance, speed);
  const { stepS } = field;
  const turns = Math.ceil(lengthS / stepS);
  const drive = (4 * Math.PI * (speed * stepS) ** 2) / (grid.steps[0] * grid.steps[1] * grid.steps[2]);
  const samples = receivers.map(() => new Float64Array(turns));
  for (let t = 0; t < turns; t++) {
    heard.forEach((cells, r) => {
      let sum = 0;
      for (const { cell, weight } of cells) sum += weight * field.now[cell]!;
      samples[r]![t] = sum;
    });
    field.advance(from, drive * (DRIVE[t] ?? 0));
    if (t % TOLD_EVERY === 0) yield t / turns;
  }
  for (const one of samples) integrateTwice(one, stepS);
  return { samples, rate: 1 / stepS };
}

/** The same in one go. */
export function waveField(...of: Parameters<typeof waveSteps>): WaveResponses {
  const steps = waveSteps(...of);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/** A cell that counts, and how much. */
export interface Weighted {
  cell: number;
  weight: number;
}

/** In place: what a twofold difference was sent for, so that the pressure at rest stays what it was. */
function integrateTwice(samples: Float64Array, stepS: number): void {
  const kept = Math.exp(-2 * Math.PI * LEAST_HZ * stepS);
  let [once, twice] = [0, 0];
  for (let t = 0; t < samples.length; t++) {
    once = kept * once + samples[t]!;
    twice = kept * twice + once;
    samples[t] = twice;
  }
}

/** The cell inside that is nearest to a point. */
export function nearestInside({ counts, steps, origin, inside }: RoomGrid, p: Point): number {
  let [best, least] = [-1, Infinity];
  for (let i = 0, cell = 0; i < counts[0]; i++)
    for (let j = 0; j < counts[1]; j++)
      for (let k = 0; k < counts[2]; k++, cell++) {
        if (!inside[cell]) continue;
        const away =
          (origin.x + i * steps[0] - p.x) ** 2 +
          (origin.y + j * steps[1] - p.y) ** 2 +
          (origin.z + k * steps[2] - p.z) ** 2;
        if (away < least) [best, least] = [cell, away];
      }
  return best;
}

/** The cells around a point that lie in the room, by how near their middles are: a point between them is heard between them. */
function spreadOf(grid: RoomGrid, p: Point): Weighted[] {
  const { steps, origin, inside } = grid;
  const found: Weighted[] = [];
  const along = [(p.x - origin.x) / steps[0], (p.y - origin.y) / steps[1], (p.z - origin.z) / steps[2]];
  const own = cellAt(grid, p);
  if (own === null || !inside[own]) return [];
  for (let corner = 0; corner < 8; corner++) {
    const place = along.map((v, d) => Math.floor(v) + ((corner >> d) & 1));
    const weight = along.reduce((w, v, d) => w * (1 - Math.abs(v - place[d]!)), 1);
    const cell = cellAt(grid, {
      x: origin.x + place[0]! * steps[0],
      y: origin.y + place[1]! * steps[1],
      z: origin.z + place[2]! * steps[2],
    });
    if (cell !== null && inside[cell] && weight > 0) found.push({ cell, weight });
  }
  const all = found.reduce((sum, f) => sum + f.weight, 0);
  return found.map((f) => ({ ...f, weight: f.weight / all }));
}
