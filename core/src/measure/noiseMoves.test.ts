import { describe, expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { aboveNoiseDb, noiseMovesDb, responseMargins, thirdOctaves } from './index.js';

const grid = logGrid();
const at = (f: number) => grid.findIndex((g) => g >= f);
const margins = (of: (centre: number) => number) =>
  thirdOctaves(20, 20000).map(({ centre }) => ({ centre, snrDb: of(centre) }));

describe('how far a response stands above its noise', () => {
  it('is the margin where the response is level', () => {
    const above = aboveNoiseDb(
      grid,
      grid.map(() => -30),
      margins(() => 26),
    );
    above.forEach((v) => expect(v).toBeCloseTo(26, 9));
  });

  it('is less in a dip, by its depth', () => {
    // three of the seventeen points of a third octave lie 12 dB lower: its mean falls by 10 lg ((14 + 3 * 0.063) / 17) = -0.79 dB
    const dip = grid.map((_, i) => (Math.abs(i - at(100)) <= 1 ? -42 : -30));
    const above = aboveNoiseDb(
      grid,
      dip,
      margins(() => 26),
    );
    expect(Math.abs(above[at(100)]! - (26 - 12 + 0.79))).toBeLessThan(0.1);
    expect(above[at(1000)]).toBeCloseTo(26, 6);
  });

  it('is nothing where the sweep did not rise above the noise', () => {
    const above = aboveNoiseDb(
      grid,
      grid.map(() => -60),
      margins((f) => (f < 60 ? -Infinity : 40)),
    );
    expect(above[at(40)]).toBeCloseTo(0, 9);
    expect(above[at(400)]).toBeCloseTo(40, 9);
    expect(() => aboveNoiseDb(grid, grid, [])).toThrow(/one band/);
  });

  it('a response that is kept longer than the sweep dwells holds more noise, by the ratio of both', () => {
    // 3.2 s over 10.63 octaves: 0.1 s for a third of one
    const sweepS = 0.3 * (Math.log2(1000) + 2 / 3);
    const swept = [63, 1000].map((centre) => ({ centre, snrDb: 40 }));
    const [low, high] = responseMargins(swept, { lowS: 1 / 1.1875, highS: 0.1 / 1.1875 }, sweepS);
    expect(low!.snrDb).toBeCloseTo(30, 9);
    expect(high!.snrDb).toBeCloseTo(40, 9);
    const [whole] = responseMargins(swept, null, sweepS);
    expect(whole!.snrDb).toBeCloseTo(40 - 10 * Math.log10(13), 9);
  });

  it('noise as loud as the sound can double it, noise 20 dB below adds a tenth', () => {
    expect(noiseMovesDb(0)).toBeCloseTo(6.0206, 4);
    expect(noiseMovesDb(20)).toBeCloseTo(20 * Math.log10(1.1), 12);
    expect(noiseMovesDb(Infinity)).toBe(0);
  });
});
