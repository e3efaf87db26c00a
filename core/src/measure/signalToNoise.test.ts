import { describe, expect, it } from 'vitest';
import { noiseSpectrum, ownMargin, signalToNoise, findClipping } from './index.js';
import { whiteNoise } from '../signal/index.js';
import { recordThrough } from './testSignals.js';

it('gives third-octave levels of white noise by their bandwidth', () => {
  const bands = noiseSpectrum(
    whiteNoise(1 << 19, 3).map((v) => 0.01 * v),
    48000,
    50,
    16000,
  );
  bands.forEach(({ centre, noiseDb }) => {
    const bandwidth = centre * (10 ** 0.05 - 10 ** -0.05);
    const scatter = (4 * 4.34) / Math.sqrt((bandwidth * (1 << 19)) / 48000); // 4 sigma of a chi-square mean
    expect(Math.abs(noiseDb - (-40 + 10 * Math.log10(bandwidth / 24000)))).toBeLessThan(
      Math.max(0.1, scatter),
    );
  });
  expect(() => noiseSpectrum(new Float64Array(10), 48000)).toThrow(/0.05 s/);
});

it('finds the margin of a sweep of known gain over known white noise', () => {
  const gain = 0.1;
  const noiseRms = 0.001;
  const { sweep, microphone, silenceS } = recordThrough(Float64Array.of(gain), { noiseRms, silenceS: 1 });
  const margins = signalToNoise(microphone, silenceS * 48000, sweep);
  const amplitude = gain * 10 ** (-6 / 20);
  margins.forEach(({ centre, snrDb, signalDb }) => {
    if (centre < 80 || centre > 16000) return; // below, one second of silence holds too few periods to average
    const noise = (noiseRms ** 2 * centre * (10 ** 0.05 - 10 ** -0.05)) / 24000;
    expect(signalDb).toBeCloseTo(10 * Math.log10(amplitude ** 2 / 2), 0);
    expect(Math.abs(snrDb - 10 * Math.log10(amplitude ** 2 / 2 / noise))).toBeLessThan(3);
  });
});

it('finds flat tops, and none in a full-scale sine', () => {
  const sine = Float64Array.from(
    { length: 48000 },
    (_, i) => Math.sin((2 * Math.PI * 997 * i) / 48000) * 0.998,
  );
  expect(findClipping(sine, 48000)).toBeNull();
  const clipped = sine.map((v) => Math.max(-1, Math.min(1, v * (v > 0 ? 2 : 1))));
  expect(findClipping(clipped, 48000)!.firstAtS).toBeLessThan(0.001);
  expect(findClipping(new Float64Array(0), 48000)).toBeNull();
});

describe('ownMargin', () => {
  const bands = (levels: number[]) =>
    levels.map((signalDb, i) => ({
      centre: 25 * 2 ** (i / 3),
      noiseDb: -80,
      signalDb,
      snrDb: signalDb + 80,
    }));

  it('finds the band of a channel that a single room mode towers over', () => {
    const { band, snrDb } = ownMargin(bands([-29, -24, -39.5, -40, -30, -27, -27, -60]));
    expect(band!.from).toBeCloseTo(25, 0);
    expect(band!.to).toBeCloseTo(100, 0);
    expect(snrDb).toBeGreaterThan(40);
  });

  it('takes two bands that rise by chance for nothing', () => {
    expect(ownMargin(bands([-Infinity, -70, -72, -Infinity])).band).toBeNull();
  });
});
