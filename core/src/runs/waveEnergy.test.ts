import { expect, it } from 'vitest';
import type { Arrival, Heard } from '../tracing/index.js';
import { binFrequencies } from '../signal/index.js';
import { energyByWaves, octavesByWaves, withRows } from './index.js';

const bins = 400;
const direct: Arrival = {
  laterS: 0,
  distance: 3,
  energy: new Float64Array(8).fill(1),
  going: { x: 1, y: 0, z: 0 },
  faces: [],
  points: [],
};
const heard: Heard = {
  directS: 0.01,
  arrivals: [direct],
  bins,
  energy: new Float64Array(8 * bins),
  lateral: new Float64Array(8 * bins),
  counts: new Float64Array(bins),
  axis: { x: 0, y: 1, z: 0 },
  directions: null,
};
const sum = (of: Float64Array) => of.reduce((a, b) => a + b, 0);

/** Waves that bring two pulses of amplitude 1, the second one later. */
function twice(laterS: number) {
  return ({ rate, size, zero }: { rate: number; size: number; zero: number }) => {
    const frequency = binFrequencies(size, rate);
    const at = (s: number) => (f: number) => -2 * Math.PI * f * (zero / rate + s);
    const [one, two] = [at(0), at(laterS)];
    const trace = {
      frequency,
      re: frequency.map((f) => Math.cos(one(f)) + Math.cos(two(f))),
      im: frequency.map((f) => Math.sin(one(f)) + Math.sin(two(f))),
    };
    return { upToHz: 300, octaves: [trace, trace, trace] };
  };
}

it('tells octaves by waves whose middle lies below where they are joined', () => {
  expect([55, 63, 120, 153, 200].map((upToHz) => octavesByWaves({ upToHz }))).toEqual([0, 1, 1, 2, 2]);
});

it('has the energy of the pulses that waves bring, when they bring them', () => {
  const rows = energyByWaves(heard, { volume: 60, speed: 343, seed: 1 }, twice(0.2), 2);
  expect(rows).toHaveLength(2);
  for (const row of rows) {
    expect(sum(row)).toBeGreaterThan(1.9);
    expect(sum(row)).toBeLessThan(2.1);
    expect(sum(row.subarray(100, 300))).toBeCloseTo(1, 1);
  }
});

it('puts them in the place of what rays and mirrors brought in those octaves alone', () => {
  const row = new Float64Array(bins).fill(0.5);
  const told = withRows({ ...heard, energy: heard.energy.slice().fill(2) }, [row, row]);
  expect([...told.energy.subarray(0, 2 * bins)].every((e) => e === 0.5)).toBe(true);
  expect([...told.energy.subarray(2 * bins)].every((e) => e === 2)).toBe(true);
  expect([...told.arrivals[0]!.energy]).toEqual([0, 0, 1, 1, 1, 1, 1, 1]);
  expect([...direct.energy]).toEqual(Array<number>(8).fill(1));
});
