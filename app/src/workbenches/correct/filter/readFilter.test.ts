import { designChannel, measuredChannel, type ChannelDesign } from '@pebble-hall/core/correct';
import { STARTING_CORRECTION } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { readAgainst, readFilter } from './readFilter';

const grid = logGrid();
const span = { from: 40, to: 16000 };
const found = measuredChannel(grid, [grid.map(() => 1)]);
const design: ChannelDesign = designChannel(
  grid,
  { ...STARTING_CORRECTION, id: 'x', span, targetOffsetDb: 0 },
  found,
);
const bell = (f: number, at: number, db: number) => db * Math.exp(-((Math.log2(f / at) / 0.3) ** 2));
const withGain = (of: (f: number) => number): ChannelDesign => ({
  ...design,
  gainDb: grid.map(of),
  predicted: { ...design.predicted, averageDb: grid.map(of) },
});
const shaped = withGain((f) => bell(f, 100, 4) + bell(f, 2000, -6));

describe('a filter', () => {
  it('is read by where it raises and lowers most', () => {
    expect(readFilter(shaped, grid, null)).toEqual([
      expect.stringMatching(
        /^The filter raises most at (99|100|101)(\.\d)? Hz, by \+4\.0 dB and lowers most at (1\.99|2|2\.0\d) kHz, by −6\.0 dB\.$/,
      ),
    ]);
  });

  it('that does nothing is said to', () => {
    expect(
      readFilter(
        withGain(() => 0),
        grid,
        null,
      ),
    ).toEqual(['The filter does nothing.']);
  });

  it('as made is held against what was asked for, within the span alone', () => {
    const beyond = shaped.gainDb.map((v, i) => v + (grid[i]! < 30 ? -9 : 0.2));
    expect(readFilter(shaped, grid, beyond)[1]).toBe('As made it is what was asked for, within 0.2 dB.');
    const off = shaped.gainDb.map((v, i) => v + bell(grid[i]!, 500, -1.5));
    expect(readFilter(shaped, grid, off)[1]).toMatch(
      /^As made it differs most at (49\d|50\d)(\.\d)? Hz, by −1\.5 dB\.$/,
    );
  });
});

describe('another variant', () => {
  it('is told by where it leaves the channel otherwise, and by how much on the whole', () => {
    const other = { name: 'Half', design: withGain((f) => bell(f, 100, 4) + 2) };
    // 6 dB at 2 kHz and 2 dB all over: −8 dB at most, smoothing takes a little of the peak
    const said = readAgainst(shaped, grid, other);
    const [, db, rms] = /is −([\d.]+) dB at .* kHz at most; the two are ([\d.]+) dB RMS apart/.exec(said)!;
    expect(said).toMatch(/^Beside Half it is −[78]\.\d dB at (1\.\d+|2(\.\d+)?) kHz at most/);
    expect(Number(db)).toBeGreaterThan(7.5);
    expect(Number(rms)).toBeGreaterThan(2);
    expect(Number(rms)).toBeLessThan(4);
  });

  it('that does the same is said to', () => {
    expect(readAgainst(shaped, grid, { name: 'Twin', design: shaped })).toBe(
      'Twin leaves this channel the same.',
    );
  });
});
