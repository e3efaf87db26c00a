import { describe, expect, it } from 'vitest';
import { powerOnGrid } from '../measure/index.js';
import {
  dbOfPower,
  filterBiquads,
  logGrid,
  octaveBands,
  peaking,
  whiteNoise,
  type ImpulseResponse,
} from '../signal/index.js';
import {
  decayMap,
  energyTimeDb,
  excessGroupDelay,
  findCorners,
  findReflections,
  findResonances,
  groupDelay,
  peaksAndDips,
  ringingS,
  stepResponse,
  unwrappedPhase,
  windowedLevelDb,
} from './index.js';

const rate = 48000;
const length = 65536;
const zero = 960;
const at = (...taps: [index: number, value: number][]): ImpulseResponse => {
  const samples = new Float64Array(length);
  for (const [index, value] of taps) samples[zero + index] = value;
  return { samples, rate, zero };
};
const through = (
  impulse: ImpulseResponse,
  sections: Parameters<typeof filterBiquads>[1],
): ImpulseResponse => ({
  ...impulse,
  samples: Float64Array.from(filterBiquads(impulse.samples, sections)),
});
/** A tone that begins at zero and decays by 60 dB in `t60`. */
const ringing = (f: number, t60: number, gain = 1): ImpulseResponse => ({
  samples: Float64Array.from({ length }, (_, i) => {
    const t = (i - zero) / rate;
    return t < 0 ? 0 : gain * Math.exp((-6.9078 * t) / t60) * Math.sin(2 * Math.PI * f * t);
  }),
  rate,
  zero,
});

describe('group delay', () => {
  const grid = logGrid(100, 15000, 12);
  // a pair of poles r e^(+-j theta) with the zeros mirrored outside: the delay of an all-pass in closed form
  const [r, theta] = [0.97, (2 * Math.PI * 900) / rate];
  const [a1, a2] = [-2 * r * Math.cos(theta), r * r];
  const allPass = { b0: a2, b1: a1, b2: 1, a1, a2 };
  const delayOf = (f: number) => {
    const w = (2 * Math.PI * f) / rate;
    const pole = (angle: number) => (1 - r * r) / (1 - 2 * r * Math.cos(w - angle) + r * r);
    return (pole(theta) + pole(-theta)) / rate;
  };

  it('is the delay of a delayed impulse at every frequency', () => {
    groupDelay(at([96, -0.3]), grid).forEach((d) => expect(d).toBeCloseTo(0.002, 9));
  });

  it('in excess of the minimum phase is that of an all-pass exactly (1 %), whatever minimum-phase filter comes with it', () => {
    const response = through(at([480, 1]), [allPass, peaking(300, 9, 2, rate), peaking(4000, -8, 1, rate)]);
    excessGroupDelay(response, grid, 48).forEach((d, i) => {
      const expected = 0.01 + delayOf(grid[i]!);
      expect(Math.abs(d / expected - 1)).toBeLessThan(0.01);
    });
  });

  it('of a minimum-phase filter has no excess', () => {
    excessGroupDelay(through(at([0, 1]), [peaking(500, 12, 4, rate)]), grid).forEach((d) =>
      expect(Math.abs(d)).toBeLessThan(1e-6),
    );
  });

  it('goes with a phase that is not wrapped', () => {
    const phase = unwrappedPhase(at([48, 1]), grid, 0); // 1 ms: 360 degrees for each kHz
    phase.forEach((p, i) => expect(p).toBeCloseTo(-0.36 * grid[i]! + 360, 3));
    unwrappedPhase(at([48, -1]), grid, 0.001).forEach((p) => expect(Math.abs(p)).toBeCloseTo(180, 6));
  });
});

describe('in time', () => {
  it('a step response sums up, and that of an exponential levels off at its closed form', () => {
    const samples = Float64Array.from({ length: 4096 }, (_, i) => 0.99 ** i);
    const step = stepResponse({ samples, rate, zero: 0 });
    expect(step[0]).toBe(1);
    expect(step[500]).toBeCloseTo((1 - 0.99 ** 501) / 0.01, 9);
  });

  it('an energy-time curve is the envelope, without the ripple of the tone under it', () => {
    const samples = Float64Array.from({ length: 16384 }, (_, i) => {
      const t = (i - 8000) / 600;
      return Math.exp(-0.5 * t * t) * Math.cos(0.4 * i);
    });
    const curve = energyTimeDb({ samples, rate, zero: 0 });
    for (let i = 7000; i < 9000; i += 37)
      expect(curve[i]).toBeCloseTo(10 * Math.log10(Math.exp(-(((i - 8000) / 600) ** 2))), 2);
  });

  it('a window in cycles keeps the direct sound, and lets go of a reflection that comes later than it is long', () => {
    const grid = logGrid(30, 16000, 12);
    const response = at([0, 1], [480, 0.8]); // 10 ms later
    const level = windowedLevelDb(response, grid, { centreS: 0, cycles: 4, longestS: 0.5 });
    grid.forEach((f, i) => {
      if (f > 400) expect(level[i]).toBeCloseTo(0, 9);
    });
    const low = grid.findIndex((f) => f > 40);
    expect(Math.abs(level[low]!)).toBeGreaterThan(1);
    expect(() => windowedLevelDb(response, grid, { centreS: 0, cycles: 0, longestS: 1 })).toThrow(
      /at least 1/,
    );
  });

  it('finds reflections with delay, level and longer way, and none in the direct sound alone', () => {
    const response = through(at([0, 1], [197, 0.5], [240, 0.02]), [peaking(3000, 3, 1, rate)]);
    const [first, ...more] = findReflections(response, 343);
    expect(more).toEqual([]);
    expect(first!.delayS).toBeCloseTo(197 / rate, 4);
    expect(first!.levelDb).toBeCloseTo(-6, 0);
    expect(first!.longerM).toBeCloseTo((343 * 197) / rate, 1);
    expect(findReflections(at([0, 1]), 343)).toEqual([]);
  });
});

describe('decay', () => {
  it('falls in the map at the rate of the tone, at its frequency', () => {
    const map = decayMap(ringing(160, 0.6), { fromHz: 40, toHz: 1000, fromS: 0, toS: 0.5, stepS: 0.01 });
    expect(map.timeS).toHaveLength(51);
    const rowOf = (f: number) => map.frequency.findIndex((v) => Math.abs(Math.log2(v / f)) <= 1 / 12);
    const level = (f: number, t: number) => map.levelDb[rowOf(f) * 51 + Math.round(t / 0.01)]!;
    expect(level(160, 0.3) - level(160, 0.1)).toBeCloseTo(-20, 0); // 60 dB in 0.6 s
    expect(level(160, 0.2)).toBeGreaterThan(level(500, 0.2) + 40);
    expect(Math.max(...map.levelDb)).toBeCloseTo(0, 6);
  });

  it('finds a resonance with frequency, decay time and the spots that have it', () => {
    const grid = logGrid();
    const room = (mode: number, seed: number) => {
      const noise = whiteNoise(length, seed);
      const ring = ringing(42, 0.9, mode);
      return { ...ring, samples: ring.samples.map((v, i) => v + (i === zero ? 0.6 : 0) + 1e-6 * noise[i]!) };
    };
    const spots = [0.02, 0.02, 0, 0.02].map((mode, i) => {
      const impulse = room(mode, i + 1);
      return {
        impulse,
        levelDb: powerOnGrid(impulse, grid).map(dbOfPower),
      };
    });
    const [found, ...more] = findResonances(grid, spots, { fromHz: 25, toHz: 300 });
    expect(more).toEqual([]);
    expect(found).toMatchObject({ count: 3, of: 4 });
    expect(Math.abs(found!.frequency - 42)).toBeLessThan(0.6);
    expect(Math.abs(found!.decayS! / 0.9 - 1)).toBeLessThan(0.1);
    expect(ringingS(at(), 42)).toBeNull();
  });
});

describe('in frequency', () => {
  const grid = logGrid();
  const bump = (f0: number, gainDb: number, octaves = 0.08) =>
    grid.map((f) => gainDb * Math.exp(-0.5 * (Math.log2(f / f0) / octaves) ** 2));

  it('finds the corners of Butterworth slopes', () => {
    // second order at 80 Hz and 12 kHz: |H|^2 = 1 / (1 + (80/f)^4), -3.01, -6.02 and -10 dB in closed form
    const level = grid.map(
      (f) => -10 * Math.log10(1 + (80 / f) ** 4) - 10 * Math.log10(1 + (f / 12000) ** 8),
    );
    const { low, high, levelDb } = findCorners(grid, level, { from: 100, to: 10000 });
    expect(levelDb).toBeCloseTo(0, 1);
    const corner = (dropDb: number, order: number) => (10 ** (dropDb / 10) - 1) ** (1 / (2 * order));
    for (const drop of [3, 6, 10] as const) {
      expect(Math.abs(Math.log2(low[drop]! / (80 / corner(drop, 2))))).toBeLessThan(1 / 12);
      expect(Math.abs(Math.log2(high[drop]! / (12000 * corner(drop, 4))))).toBeLessThan(1 / 12);
    }
    expect(findCorners(grid, new Float64Array(grid.length), { from: 100, to: 10000 }).low).toEqual({
      3: null,
      6: null,
      10: null,
    });
  });

  it('tells peaks and dips, the strongest first, and at how many spots each is', () => {
    const shared = bump(120, -8).map((v, i) => v + bump(900, 6)[i]!);
    const spots = [shared, shared, bump(120, -8)];
    const found = peaksAndDips(grid, shared, spots, { from: 50, to: 10000 });
    expect(found.map(({ count }) => count)).toEqual([3, 2]);
    expect(found[0]!.frequency).toBeCloseTo(120, -1);
    expect(found[0]!.offDb).toBeLessThan(-5);
    expect(found[1]!.offDb).toBeGreaterThan(3);
    expect(peaksAndDips(grid, new Float64Array(grid.length), spots, { from: 50, to: 10000 })).toEqual([]);
  });

  it('octave bands of the map are those of the standard', () => {
    const map = decayMap(at([0, 1]), { fromHz: 63, toHz: 500, fromS: 0, toS: 0.01, stepS: 0.01 });
    expect([...map.frequency]).toEqual(octaveBands(6, 63, 500).map((b) => b.centre));
  });
});
