// Waves in rooms, for the worker that traces them: told step by step, so that they can be ended.
import type { Point } from '@pebble-hall/core/geometry';
import { OCTAVES, octaveShares, speedOfSound } from '@pebble-hall/core/room';
import {
  gridOfRun,
  lowsOf,
  lowsOfRunSteps,
  lowsPlan,
  lowsSteps,
  octavesByWaves,
  type LowsHeard,
  type RoomRun,
} from '@pebble-hall/core/runs';
import { sceneOf, type Scene, type TracedFace } from '@pebble-hall/core/tracing';
import { isInRoom, roomGrid, waveModeSteps, type NoGrid, type WaveModes } from '@pebble-hall/core/waves';
import QuickLRU from 'quick-lru';
import type { JobContext } from './serveJobs';

type Progress = JobContext['progress'];
/** Told no oftener than this, ms. */
const TOLD_MS = 100;

/** Goes on until it is done; whoever waits is told how far it is, and can end it there. */
async function throughSteps<Result>(steps: Generator<number, Result>, progress: Progress): Promise<Result> {
  for (let told = performance.now(); ;) {
    const next = steps.next();
    if (next.done) return next.value;
    if (performance.now() - told < TOLD_MS) continue;
    told = performance.now();
    await progress(next.value);
  }
}

/** The lows at a receiver as waves: level over frequency, dB against the direct sound at 1 m; why there is none. */
export type LowsSeen =
  | { frequency: Float64Array; levelDb: Float64Array; upToHz: number; stepM: number; cells: number }
  | { problem: string };

/** Points of the lows that are seen: 0.06 Hz apart. */
const LOWS_SEEN = { rate: 1000, size: 1 << 14 };

/** Waves at receivers that were asked for, under the run and its receiver. */
const lowsKept = new QuickLRU<string, LowsHeard>({ maxSize: 8 });
const WHY_NOT: Record<NoGrid, string> = {
  'not closed': 'The room is not closed, so its lows are told by rays as well. Close it in Plan.',
  'too large': 'The room is too large for waves, so its lows are told by rays as well.',
  outside: 'A source is outside the room, so the lows are told by rays as well.',
};

/** What waves bring to a receiver of a run: the same as before where that was asked for. */
export async function lowsHeard(
  run: RoomRun,
  scene: Scene,
  index: number,
  progress: Progress,
): Promise<LowsHeard | { problem: string }> {
  const key = `${run.id} ${index}`;
  const known = lowsKept.get(key);
  if (known) return known;
  const plan = lowsPlan(run, scene);
  const grid = gridOfRun(run, scene, plan);
  if (typeof grid === 'string') return { problem: WHY_NOT[grid] };
  const receiver = run.receivers[index]!;
  const outside = [...run.sources, receiver].find((p) => !isInRoom(grid, p.position));
  if (outside)
    return { problem: `${outside.name} is outside the room, so the lows are told by rays as well.` };
  const heard = await throughSteps(lowsSteps(run, plan, grid, receiver.position), progress);
  lowsKept.set(key, heard);
  return heard;
}

/** Waves of whole runs: they hang on no rays, so a run that goes on keeps them. */
const runsKept = new QuickLRU<string, (LowsHeard | null)[]>({ maxSize: 3 });

/**
 * What waves bring to all receivers of a run, where they tell whole octaves of it.
 * @returns null where they do not: in larger rooms, and in those that cannot be laid out in cells
 */
export async function wavesOfRun(
  run: RoomRun,
  scene: Scene,
  progress: Progress,
): Promise<{ octaves: number; at: (LowsHeard | null)[] } | null> {
  const plan = lowsPlan(run, scene);
  const octaves = octavesByWaves(plan);
  if (octaves === 0) return null;
  const known = runsKept.get(run.id);
  if (known) return { octaves, at: known };
  const grid = gridOfRun(run, scene, plan);
  if (typeof grid === 'string') return null;
  const at = await throughSteps(lowsOfRunSteps(run, plan, grid), progress);
  runsKept.set(run.id, at);
  return { octaves, at };
}

/** Level over frequency of the lows at a receiver. */
export async function seenLows(
  run: RoomRun,
  scene: Scene,
  index: number,
  progress: Progress,
): Promise<LowsSeen> {
  const lows = await lowsHeard(run, scene, index, progress);
  if ('problem' in lows) return lows;
  const { size, rate } = LOWS_SEEN;
  const bins = Math.ceil((1.2 * lows.upToHz * size) / rate);
  const sources = run.sources.map(() => ({ powerDb: OCTAVES.map(() => 0), delayS: 0 }));
  const speed = speedOfSound(run.air.temperatureC);
  const [one] = lowsOf(lows, 'one ear', 0, { size, rate, zero: 0, directS: 0, sources, speed });
  const shares = new Float64Array(OCTAVES.length);
  const frequency = Float64Array.from({ length: bins }, (_, k) => (k * rate) / size);
  const levelDb = frequency.map((hz, k) => {
    octaveShares(hz, shares);
    let [re, im] = [0, 0];
    one!.octaves.forEach((o, i) => {
      re += shares[i]! * o.re[k]!;
      im += shares[i]! * o.im[k]!;
    });
    return 20 * Math.log10(Math.hypot(re, im));
  });
  return { frequency, levelDb, upToHz: lows.upToHz, stepM: lows.stepM, cells: lows.cells };
}

/** Cells to a wave: its modes lie half a percent too low at most. */
const MODE_TURN = 0.42;
const NO_MODES: Record<NoGrid, string> = {
  'not closed': 'The room is not closed, so it has no modes of its own.',
  'too large': 'The room is too large for its modes to be told one by one.',
  outside: 'The home spot is outside the room.',
};

/** A room whose modes are looked for: its faces, a point within, and the height of the plane they are told on. */
export interface ModesAsked {
  faces: TracedFace[];
  within: Point;
  speed: number;
  toHz: number;
  heightM: number;
}

/** Standing waves of a room of any shape at all. @returns why there are none */
export async function modesOfWaves(
  of: ModesAsked,
  progress: Progress,
): Promise<WaveModes | { problem: string }> {
  const stepM = (MODE_TURN * of.speed) / (2 * Math.PI * of.toHz);
  const grid = roomGrid(sceneOf(of.faces), of.within, stepM);
  if (typeof grid === 'string') return { problem: NO_MODES[grid] };
  return throughSteps(waveModeSteps(grid, of.speed, of.toHz, of.heightM), progress);
}
