import { type Point } from '@pebble-hall/core/geometry';
import {
  type ChannelDesign,
  designChannel,
  exactChannel,
  type ExactChannel,
  excessPhase,
  measuredChannel,
  predictPower,
  STARTING_FILTER,
  STARTING_GOAL,
} from '@pebble-hall/core/correct';
import { powerOnGrid } from '@pebble-hall/core/measure';
import { speedOfSound } from '@pebble-hall/core/room';
import {
  dbOfPower,
  filterBiquads,
  linkwitzRiley,
  logGrid,
  seededRandom,
  smoothLevels,
} from '@pebble-hall/core/signal';
import { subsTogether } from '@pebble-hall/core/alignment';
import { responseAt, sectionsLevelDb } from '@pebble-hall/core/path';
import { beforeAll, describe, expect, it } from 'vitest';
import { NET_LOFT } from '../net-loft/index.js';
import { distanceOf, grid, PROCESSOR } from './measureForTest.js';
import { NET_LOFT_PLACE, type SimulatedPlace } from './simulatedPlace.js';
import { SimulatedWays } from './simulatedWays.js';

const rate = 48000;
/** Of levels over frequency: how evenly the room rings away counts little. */
const RAYS = 2000;
const known = new Map<string, SimulatedWays>();
/** What a microphone without a fault would find in a quiet loft: the model itself, through the house's low-pass for a subwoofer. */
function truth(output: number, at: Point, seed: number, place: SimulatedPlace = NET_LOFT_PLACE) {
  const key = `${seed} ${place.shape.floor.absorption.join()}`;
  const ways = known.get(key) ?? new SimulatedWays(place, rate, seed, RAYS);
  known.set(key, ways);
  const loudspeaker = place.loudspeakers.find((l) => l.output === output)!;
  const samples = ways.impulse(loudspeaker, [loudspeaker], at).subarray(0, 32768);
  const heard =
    loudspeaker.role === 'subwoofer'
      ? filterBiquads(samples, linkwitzRiley('lowpass', 4, 110, rate))
      : samples;
  return { samples: heard, rate, zero: 0 };
}
const spotsOf = (seed: number, count: number): Point[] => {
  const random = seededRandom(seed);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  return Array.from({ length: count }, () => ({
    x: between(3.35, 3.8),
    y: between(1.4, 2.75),
    z: between(1.05, 1.25),
  }));
};
const design = (impulses: ReturnType<typeof truth>[], goal: Partial<typeof STARTING_GOAL> = {}) =>
  designChannel(
    grid,
    { id: 'x', ...STARTING_GOAL, ...goal, span: null, targetOffsetDb: null },
    measuredChannel(
      grid,
      impulses.map((i) => powerOnGrid(i, grid)),
      [],
      undefined,
      impulses.map((i) => excessPhase(i, grid)),
    ),
  );

describe('over ten seeds, each with seats and a tail of its own', () => {
  const outputs = [1, 2, 3, 4, 5, 6, 1, 3, 4, 6];
  const runs = outputs.map((output, i) => ({ output, seed: i + 1 }));
  // the target as it is drawn: one that keeps roll-offs lies nearer to what was measured before anything is corrected
  const target = { ...STARTING_GOAL.target, keepsRollOff: false };
  const falls = { 3: [] as number[], 11: [] as number[] };
  const fallsWithEnds = { 3: [] as number[], 11: [] as number[] };
  const fits: ExactChannel[] = [];
  beforeAll(() => {
    for (const { output, seed } of runs) {
      const all = spotsOf(seed, 12).map((at) => truth(output, at, seed));
      const out = powerOnGrid(all[11]!, grid);
      for (const n of [3, 11] as const) {
        const fallOf = (by: ChannelDesign) => {
          const { levelDb } = exactChannel(grid, by, STARTING_GOAL, STARTING_FILTER, PROCESSOR);
          return 1 - distanceOf(predictPower(out, levelDb), by) / distanceOf(out, by);
        };
        falls[n].push(fallOf(design(all.slice(0, n), { target })));
        const d = design(all.slice(0, n));
        fallsWithEnds[n].push(fallOf(d));
        if (n === 11)
          fits.push(
            exactChannel(grid, d, STARTING_GOAL, { ...STARTING_FILTER, form: 'sections' }, PROCESSOR),
          );
      }
    }
  }, 240_000);
  const mean = (values: number[]) => values.reduce((a, b) => a + b) / values.length;

  it('comes nearer to the target at a spot left out by 30 % with three spots, by 40 % with eleven', () => {
    console.log(
      mean(falls[3]),
      mean(falls[11]),
      mean(fallsWithEnds[3]),
      mean(fallsWithEnds[11]),
      Math.min(...falls[3], ...falls[11]),
    );
    expect(mean(falls[3])).toBeGreaterThan(0.3);
    expect(mean(falls[11])).toBeGreaterThan(0.4);
    for (const fall of [...falls[3], ...falls[11]]) expect(fall).toBeGreaterThan(0.1);
    // less is left to do where ends are kept
    expect(mean(fallsWithEnds[3])).toBeGreaterThan(0.3);
    expect(mean(fallsWithEnds[11])).toBeGreaterThan(0.35);
  });

  it('ten sections follow what the FIR does within 1 dB RMS', () => {
    const errors = fits.map((f) => f.withAll?.errorDb ?? f.errorDb);
    expect(mean(errors)).toBeLessThan(1);
    // a subwoofer's many narrow resonances may take some sections more than there are
    for (const error of errors) expect(error).toBeLessThan(1.3);
    // where fewer are used, hardly more is left
    fits.forEach((f, i) => expect(f.errorDb).toBeLessThanOrEqual(errors[i]! + 0.1));
  });

  it('no two sections within an octave cancel more than 6 dB of each other', () => {
    for (const { sections } of fits)
      for (const a of sections)
        for (const b of sections) {
          if (Math.abs(Math.log2(a.frequency / b.frequency)) > 1 || a.gainDb * b.gainDb >= 0) continue;
          const [one, other] = [a, b].map((s) => sectionsLevelDb([s], rate, grid));
          const cancelled = one!.map((v, i) => Math.min(Math.abs(v), Math.abs(other![i]!)));
          expect(Math.max(...cancelled)).toBeLessThan(6);
        }
  });

  it('brings the two subwoofers together: seats differ by 30 % less, 20 to 80 Hz', () => {
    const frequency = logGrid(20, 80, 24);
    const seed = 1;
    const at = [6, 7].map((output) =>
      spotsOf(seed, 5).map((spot) => responseAt(truth(output, spot, seed), frequency)),
    );
    const { deviationDb } = subsTogether({ rate, at });
    expect(deviationDb.after / deviationDb.before).toBeLessThan(0.7);
  });
});

describe('what is said to be left alone is true of the room', () => {
  const spots: Point[] = [
    { x: 3.6, y: 1.72, z: 1.14 },
    { x: 3.6, y: 1.6, z: 1.14 },
    { x: 3.6, y: 2.25, z: 1.14 },
  ];
  // in the open, over a ground that swallows all that can be, the direct sound is alone
  const open: SimulatedPlace = {
    ...NET_LOFT_PLACE,
    shape: {
      ...NET_LOFT_PLACE.shape,
      isEnclosed: false,
      floor: { ...NET_LOFT_PLACE.shape.floor, absorption: Array<number>(8).fill(1) },
    },
  };
  const c = speedOfSound(NET_LOFT.air.temperatureC);
  const modes = [0, 1, 2, 3].flatMap((x) =>
    [0, 1, 2, 3].flatMap((y) =>
      [0, 1, 2].map(
        (z) => (c / 2) * Math.hypot(x / NET_LOFT.size.x, y / NET_LOFT.size.y, z / NET_LOFT.size.z),
      ),
    ),
  );
  const reasons = new Set<string>();

  it.each([3, 4, 5, 7])('output %i', (output) => {
    const all = spots.map((at) => truth(output, at, 1));
    const sixth = all.map((i) => smoothLevels(grid, powerOnGrid(i, grid).map(dbOfPower), 6));
    for (const goal of [{}, { maxBoostDb: 2, maxCutDb: 8 }]) {
      const d = design(all, goal);
      for (const l of d.leftAlone) {
        reasons.add(l.reason);
        const i = grid.findIndex((f) => f >= l.at);
        const levels = sixth.map((s) => s[i]!);
        const mean = levels.reduce((a, b) => a + b) / levels.length;
        if (l.reason === 'moves') {
          const deviation = Math.sqrt(levels.reduce((s, v) => s + (v - mean) ** 2, 0) / levels.length);
          expect(deviation, `${l.at} Hz`).toBeGreaterThan(2.5);
        } else if (l.reason === 'too deep') {
          for (const level of levels) expect(level - d.targetDb[i]!, `${l.at} Hz`).toBeLessThan(-0.5);
          // and it was the limit on boosts that held the design back
          expect(d.wantedDb[i]! - d.fullDb[i]!, `${l.at} Hz`).toBeGreaterThan(1);
        } else if (l.reason === 'cut limit') {
          // in the lows a peak that strong is one of the room's modes; above, where they overlap, the loudspeaker's
          if (l.at < 150)
            expect(Math.min(...modes.map((m) => Math.abs(m / l.at - 1))), `${l.at} Hz`).toBeLessThan(0.07);
          for (const level of levels) expect(level - d.targetDb[i]!).toBeGreaterThan(3);
        } else {
          // not of minimum phase: what comes after the direct sound is louder than it, at so many of the spots (Rouche)
          const near = Float64Array.from({ length: 21 }, (_, k) => l.at * 2 ** ((k - 10) / 120));
          const louder = spots.filter((at) => {
            const [h, direct] = [NET_LOFT_PLACE, open].map((place) =>
              responseAt(truth(output, at, 1, place), near),
            );
            return near.some((_, k) => {
              const later = Math.hypot(h!.re[k]! - direct!.re[k]!, h!.im[k]! - direct!.im[k]!);
              return later > Math.hypot(direct!.re[k]!, direct!.im[k]!);
            });
          });
          expect(louder.length / spots.length, `${l.at} Hz`).toBeGreaterThanOrEqual(l.nonMinimumPhase - 1e-9);
        }
      }
    }
  });

  it('meets more than one kind of reason on the way', () => {
    expect(reasons.size).toBeGreaterThanOrEqual(2);
  });
});
