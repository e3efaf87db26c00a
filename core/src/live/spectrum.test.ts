import { describe, expect, it } from 'vitest';
import { weightingDb } from '../level/index.js';
import { octaveBands, pinkNoise, whiteNoise } from '../signal/index.js';
import { lessNoise, noiseCriterion, noiseRating, RATED_OCTAVES } from './noiseCriteria.js';
import { powerInBands } from './powerBands.js';
import { SpectrumAnalyser, type SpectrumSettings } from './spectrumAnalyser.js';

const RATE = 48_000;
const analysed = (samples: ArrayLike<number>, change: Partial<SpectrumSettings> = {}) => {
  const analyser = new SpectrumAnalyser(RATE, {
    bands: 3,
    weighting: 'Z',
    averaging: { kind: 'for ever' },
    ...change,
  });
  const all = Float32Array.from(samples);
  for (let at = 0; at < all.length; at += 1024) analyser.process(all.subarray(at, at + 1024));
  return analyser;
};
const sine = (hz: number, seconds: number, rms: number) =>
  Float64Array.from(
    { length: seconds * RATE },
    (_, i) => Math.SQRT2 * rms * Math.sin((2 * Math.PI * hz * i) / RATE),
  );
const nearest = (frequency: Float64Array, hz: number) =>
  frequency.reduce(
    (best, f, i) => (Math.abs(Math.log(f / hz)) < Math.abs(Math.log(frequency[best]! / hz)) ? i : best),
    0,
  );

describe('power in bands', () => {
  it('shares a bin between the bands that meet in it, and loses nothing', () => {
    const power = Float64Array.from({ length: 101 }, () => 2);
    const bands = [
      { centre: 10, from: 0, to: 14.25 },
      { centre: 30, from: 14.25, to: 100.5 },
    ];
    // a bin reaches half a step to either side
    const [low, high] = powerInBands(power, 1, bands);
    expect(low).toBeCloseTo(2 * (14.25 + 0.5) - 1, 12);
    expect(low! + high!).toBeCloseTo(2 * 101 - 1, 12);
  });
});

describe('the spectrum of an input', () => {
  it.each([
    [50, 1],
    [100, 3],
    [1000, 3],
    [1000, 12],
    [8000, 48],
  ] as const)('a sine of %d Hz has its level in its band, 1/%d octave', (hz, bands) => {
    // the middle of a band, so that it lies in one whatever its width
    const centre = octaveBands(bands, 20, 20_000).reduce((a, b) =>
      Math.abs(b.centre - hz) < Math.abs(a.centre - hz) ? b : a,
    ).centre;
    const { frequency, levelDb, overallDb } = analysed(sine(centre, 4, 0.1), { bands }).read();
    const at = nearest(frequency, centre);
    expect(levelDb[at]).toBeCloseTo(-20, 1);
    expect(overallDb).toBeCloseTo(-20, 1);
  });

  it('pink noise is as strong in every third, white rises by 1 dB from one to the next', () => {
    const pink = analysed(pinkNoise(24 * RATE, RATE, 3)).read();
    const white = analysed(whiteNoise(24 * RATE, 4)).read();
    const within = [...pink.frequency.keys()].filter(
      (i) => pink.frequency[i]! > 60 && pink.frequency[i]! < 12_000,
    );
    const mean = within.reduce((sum, i) => sum + pink.levelDb[i]!, 0) / within.length;
    for (const i of within) {
      expect(Math.abs(pink.levelDb[i]! - mean)).toBeLessThan(1.2);
      const third = white.frequency[i]! * (10 ** 0.05 - 10 ** -0.05);
      expect(white.levelDb[i]!).toBeCloseTo(10 * Math.log10(third / (RATE / 2)), 0);
    }
  });

  it('is weighted as the standard says', () => {
    for (const weighting of ['A', 'C'] as const) {
      const { frequency, levelDb } = analysed(sine(100, 4, 0.1), { weighting }).read();
      expect(levelDb[nearest(frequency, 100)]).toBeCloseTo(-20 + weightingDb(weighting, 100), 1);
    }
  });

  it('narrow bands tell two tones 10 Hz apart', () => {
    const two = sine(1000, 4, 0.1).map(
      (v, i) => v + Math.SQRT2 * 0.1 * Math.sin((2 * Math.PI * 1030 * i) / RATE),
    );
    const { frequency, levelDb } = analysed(two, { bands: 'narrow' }).read();
    expect(levelDb[nearest(frequency, 1000)]).toBeGreaterThan(levelDb[nearest(frequency, 1015)]! + 15);
    expect(levelDb[nearest(frequency, 1030)]).toBeGreaterThan(levelDb[nearest(frequency, 1015)]! + 15);
  });

  it('holds maxima and minima, and tells what is exceeded how often', () => {
    // a tenth of the time loud, a quarter soft
    const levels = (i: number) => {
      const second = Math.floor(i / RATE) % 20;
      return second < 3 ? 0.5 : second < 14 ? 0.05 : 0.005;
    };
    const moving = sine(1000, 40, 1).map((v, i) => v * levels(i));
    const { frequency, maxDb, minDb, l10Db, l50Db, l90Db, levelDb } = analysed(moving).read();
    const at = nearest(frequency, 1000);
    expect(maxDb[at]).toBeCloseTo(-6, 0);
    expect(minDb[at]).toBeCloseTo(-46, 0);
    expect(l10Db[at]).toBeCloseTo(-6, 0);
    expect(l50Db[at]).toBeCloseTo(-26, 0);
    expect(l90Db[at]).toBeCloseTo(-46, 0);
    expect(levelDb[at]).toBeCloseTo(10 * Math.log10(0.15 * 0.25 + 0.55 * 0.0025 + 0.3 * 0.000025), 0);
  });

  it('forgets in its time, and when it is told to; what is no number makes no number', () => {
    const softer = sine(1000, 10, 0.1).map((v, i) => (i > 5 * RATE ? v / 10 : v));
    softer[6 * RATE] = NaN;
    const analyser = analysed(softer, { averaging: { kind: 'exponential', seconds: 0.5 } });
    const { frequency, levelDb } = analyser.read();
    expect(levelDb[nearest(frequency, 1000)]).toBeCloseTo(-40, 1);
    analyser.reset();
    expect(analyser.read().levelDb.every(Number.isNaN)).toBe(true);
    expect(analyser.read().heardS).toBe(0);
  });
});

describe('noise criteria', () => {
  it('NR: a spectrum along a curve has its number, and the band over it decides', () => {
    const along = [55.4, 35.5, 22, 12, 4.8, 0, -3.5, -6.1, -8].map(
      (a, i) => a + [0.681, 0.79, 0.87, 0.93, 0.974, 1, 1.015, 1.025, 1.03][i]! * 35,
    );
    expect(noiseRating(along)!.rating).toBeCloseTo(35, 9);
    along[5] = 40;
    expect(noiseRating(along)).toEqual({ rating: 40, decidingHz: 1000 });
    expect(noiseRating(RATED_OCTAVES.map(() => NaN))).toBeNull();
  });

  it('NC: likewise, between curves by interpolation; over NC-65 there is none', () => {
    const nc35 = [70, 60, 52, 45, 40, 36, 34, 33, 32];
    expect(noiseCriterion(nc35)!.rating).toBeCloseTo(35, 9);
    nc35[4] = 42.5;
    expect(noiseCriterion(nc35)).toEqual({ rating: 37.5, decidingHz: 500 });
    nc35[2] = 90;
    expect(noiseCriterion(nc35)).toBeNull();
    expect(noiseCriterion(RATED_OCTAVES.map(() => 0))!.rating).toBe(15);
  });
});

describe('a spectrum less the noise', () => {
  it('is the difference of powers, and nothing where noise is nearly all of it', () => {
    const both = Float64Array.of(60, 60, 60);
    const noise = Float64Array.of(50, 58, 60 - 10 * Math.log10(2) - 0.2);
    const { levelDb, share } = lessNoise(both, noise);
    expect(levelDb[0]).toBeCloseTo(10 * Math.log10(1e6 - 1e5), 9);
    expect(share[0]).toBeCloseTo(0.1, 9);
    expect(levelDb[1]).toBeNaN();
    expect(levelDb[2]).toBeCloseTo(10 * Math.log10(1e6 - 10 ** (noise[2]! / 10)), 9);
    expect(() => lessNoise(both, noise.subarray(1))).toThrow(/2 of noise/);
  });
});
