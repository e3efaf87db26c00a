import { findCorners, peaksAndDips } from '@pebble-hall/core/views';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { normalised } from './normalised';
import { readLevels, type ChannelLevels } from './readLevels';

const grid = logGrid();
const band = { from: 50, to: 10000 };
const bump = (f0: number, gainDb: number) =>
  grid.map((f) => gainDb * Math.exp(-0.5 * (Math.log2(f / f0) / 0.08) ** 2));
const channel = (name: string, spots: Float64Array[]): ChannelLevels => {
  const averageDb = spots[0]!;
  return {
    id: name,
    name,
    band,
    spots,
    spotNames: spots.map((_, i) => `Spot ${i + 1}`),
    averageDb,
    lowDb: averageDb,
    highDb: averageDb,
    otherDb: null,
    corners: findCorners(grid, averageDb, band),
    features: peaksAndDips(grid, averageDb, spots, band),
  };
};

it('tells a peak that all seats share from a dip that moves, and what can be done', () => {
  const flat = new Float64Array(grid.length);
  const peak = bump(80, 9);
  const both = peak.map((v, i) => v + bump(400, -9)[i]!);
  const notes = readLevels(
    [channel('Left', [both, peak, peak])],
    [{ delayS: 0.0041, levelDb: -8, longerM: 1.4 }],
  );
  const texts = notes.map((n) => n.text).join('\n');
  expect(texts).toMatch(/Peak of \+\d\.\d dB at \d\d(\.\d)? Hz, at every spot: it can be cut for all/);
  expect(texts).toMatch(/Dip of −\d\.\d dB at \d{3} Hz, at 1 of 3 spots: it moves from seat to seat/);
  expect(texts).toContain('First strong reflection 4.1 ms after the direct sound, 1.4 m longer');
  expect(readLevels([channel('Left', [flat])], [])[0]!.text).toContain('No peak or dip');
});

it('reads two channels by how far they differ where both play', () => {
  const flat = new Float64Array(grid.length);
  const louder = bump(1000, 8).map((v) => v + 2);
  const [note] = readLevels([channel('Left', [louder]), channel('Right', [flat])], []);
  expect(note!.text).toMatch(
    /Left is \+2\.\d dB against Right on the mean from 50 Hz to 10 kHz; they differ most at 1 kHz/,
  );
});

it('normalises at a frequency or over a band', () => {
  const curve = grid.map((f) => (f > 900 && f < 1100 ? -20 : -30));
  expect(normalised(grid, curve, { from: 1000, to: 2000 }, 'frequency')).toBe(-20);
  expect(normalised(grid, curve, band, 'own band')).toBeCloseTo(-29.6, 0);
  expect(normalised(grid, curve, band, 'as it is')).toBe(0);
});
