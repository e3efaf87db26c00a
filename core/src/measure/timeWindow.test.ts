import { expect, it } from 'vitest';
import { logGrid, octaveBands } from '../signal/index.js';
import { bandEnergy, cutImpulse, findArrival, powerOnGrid, usableBand, windowImpulse } from './index.js';

it('cuts around time zero, with what wrapped round in front', () => {
  const circular = new Float64Array(1024);
  circular[0] = 1;
  circular[1022] = 0.5;
  const { samples, zero } = cutImpulse(circular, 48000, 80, 400);
  expect(zero).toBe(80);
  expect(samples[80]).toBe(1);
  expect(samples[78]).toBe(0.5);
  expect(samples.length).toBe(480);
  expect(() => cutImpulse(circular, 48000, 700, 400)).toThrow(/700 \+ 400/);
});

it('windows: 1 at the centre, one half at the middle of the left side, 0 outside', () => {
  const impulse = { samples: new Float32Array(1000).fill(1), rate: 1000, zero: 100 };
  const { samples } = windowImpulse(impulse, { centreS: 0.2, leftS: 0.1, rightS: 0.4 });
  expect(samples[300]).toBe(1);
  expect(samples[250]).toBeCloseTo(0.5, 6);
  expect(samples[199]).toBe(0);
  expect(samples[500]).toBe(1);
  expect(samples[600]).toBeCloseTo(0.5, 6);
  expect(samples[701]).toBe(0);
  expect(() => windowImpulse(impulse, { centreS: 0, leftS: 0, rightS: 1 })).toThrow(
    /left side in s .* above 0, got 0/,
  );
});

it('finds onset, peak and sign of a response, and nothing in silence', () => {
  const samples = new Float32Array(500);
  samples[150] = 0.2;
  samples[160] = -1;
  expect(findArrival({ samples, rate: 1000, zero: 100 })).toEqual({ onsetS: 0.05, peakS: 0.06, peak: -1 });
  expect(findArrival({ samples: new Float32Array(5), rate: 1000, zero: 0 })).toBeNull();
});

it('puts the energy of a sine into its band', () => {
  const sine = Float64Array.from({ length: 8192 }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / 48000));
  const energy = bandEnergy(sine, 48000, octaveBands(1, 125, 8000));
  expect(energy[3]! / 4096).toBeCloseTo(1, 2);
  expect(energy[1]! / 4096).toBeLessThan(1e-3); // side lobes of the unwindowed block
});

it('reads the band of a loudspeaker despite a room null within it', () => {
  const grid = logGrid();
  const levels = grid.map((f) => -20 * Math.log10(1 + (50 / f) ** 4) - 20 * Math.log10(1 + (f / 12000) ** 4));
  const dip = levels.map((level, i) => (Math.abs(Math.log2(grid[i]! / 400)) < 0.08 ? level - 25 : level));
  const band = usableBand(grid, dip)!;
  expect(band.from).toBeGreaterThan(30);
  expect(band.from).toBeLessThan(60);
  expect(band.to).toBeGreaterThan(10000);
  expect(
    usableBand(
      grid,
      grid.map(() => -Infinity),
    ),
  ).toBeNull();
});

it('gives a unit impulse a power of 1 at every frequency of the grid', () => {
  const samples = new Float32Array(4096);
  samples[33] = 1;
  powerOnGrid({ samples, rate: 48000, zero: 0 }, logGrid(20, 20000, 12)).forEach((p) =>
    expect(p).toBeCloseTo(1, 6),
  );
});
