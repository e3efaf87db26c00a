import { designChannel, measuredChannel } from '@pebble-hall/core/correct';
import { STARTING_CORRECTION } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { readDesign } from './readDesign';

const grid = logGrid();
const correction = {
  ...STARTING_CORRECTION,
  target: {
    handles: [{ frequency: 1000, levelDb: 0 }],
    lowLiftDb: 0,
    highTiltDb: 0,
    keepsRollOff: true,
    lowExtensionHz: null,
    highExtensionHz: null,
  },
  targetLevels: { x: 0 },
};
const bump = (f: number, at: number, db: number, octaves: number) =>
  db * Math.exp(-((Math.log2(f / at) / octaves) ** 2));
const read = (...spots: ((f: number) => number)[]) => {
  const goal = { id: 'x', ...correction, span: { from: 40, to: 12000 }, targetOffsetDb: 0 };
  const powers = spots.map((levelAt) => grid.map((f) => 10 ** (levelAt(f) / 10)));
  const design = designChannel(grid, goal, measuredChannel(grid, powers));
  return readDesign(design, grid, correction);
};

it('reads the strongest peak and what becomes of it', () => {
  const [peak] = read((f) => bump(f, 100, 9, 0.3));
  expect(peak!.text).toMatch(
    /^Peak at (98|99|100|101|102)(\.\d)? Hz, \+8\.\d dB over the target: cut by 8\.\d dB\.$/,
  );
});

it('names a dip that differs from spot to spot, and one that all share', () => {
  const moving = read(
    (f) => bump(f, 200, -22, 0.2),
    (f) => bump(f, 200, -18, 0.2),
    (f) => bump(f, 230, -3, 0.2),
  );
  expect(moving.map((n) => n.text).join(' ')).toMatch(/Dip at .*differs from spot to spot/);
  const shared = read(
    (f) => bump(f, 200, -15, 0.4),
    (f) => bump(f, 200, -15, 0.4),
  );
  expect(shared.map((n) => `${n.text} ${n.small}`).join(' ')).toMatch(
    /shared by the spots.*at most \+6\.0 dB is allowed/,
  );
});

it('says so when nothing is left alone, and where the span ends', () => {
  const notes = read(() => 0).map((n) => n.text);
  expect(notes[0]).toBe('Nothing within the span had to be left alone.');
  expect(notes[1]).toMatch(/^Below 40 Hz and above 12 kHz nothing is changed/);
});
