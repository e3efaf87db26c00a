import { describe, expect, it } from 'vitest';
import { octaveBands, whiteNoise, type ImpulseResponse } from '../signal/index.js';
import { bandSignals, FIGURES, overSpots, roomFigures, type Found } from './index.js';

const rate = 48000;
const zero = 960;
const length = 131072;
const band = (centre: number) => octaveBands(1, centre * 0.9, centre * 1.1);

/** A tone in the middle of an octave that decays by 60 dB in `t60`, with noise in that octave `noiseDb` below its start. */
function decaying(centre: number, t60: number, noiseDb: number | null, seed = 1): ImpulseResponse {
  const samples = new Float64Array(length);
  const k = Math.log(1000) / t60;
  for (let i = zero; i < length; i++) {
    const t = (i - zero) / rate;
    samples[i] = Math.exp(-k * t) * Math.sin(2 * Math.PI * centre * t);
  }
  if (noiseDb !== null) {
    const noise = whiteNoise(length, seed);
    const inBand = bandSignals(noise, band(centre), rate)[0]!;
    const power = inBand.reduce((s, v) => s + v * v, 0) / length;
    const gain = Math.sqrt((0.5 * 10 ** (-noiseDb / 10)) / power);
    inBand.forEach((v, i) => (samples[i] = samples[i]! + gain * v));
  }
  return { samples, rate, zero };
}

const valueOf = (f: Found) => (f.found ? f.value : NaN);

describe.each([
  [1000, 0.4],
  [1000, 1.2],
  [2000, 0.8],
  [500, 1.6],
])('an exponential decay at %f Hz of %f s', (centre, t60) => {
  const alone = roomFigures(decaying(centre, t60, null), band(centre))![0]!;
  const k = Math.log(1e6) / t60;

  it('has its reverberation time within 1 %, whatever stretch is taken', () => {
    for (const name of ['edt', 't20', 't30'] as const)
      expect(Math.abs(valueOf(alone[name]) / t60 - 1), name).toBeLessThan(0.01);
  });

  it('has the clarity, definition and centre time of the closed form', () => {
    expect(Math.abs(valueOf(alone.c80) - 10 * Math.log10(Math.exp(0.08 * k) - 1))).toBeLessThan(0.1);
    expect(Math.abs(valueOf(alone.c50) - 10 * Math.log10(Math.exp(0.05 * k) - 1))).toBeLessThan(0.1);
    expect(Math.abs(valueOf(alone.d50) - (1 - Math.exp(-0.05 * k)))).toBeLessThan(0.01);
    expect(Math.abs(valueOf(alone.ts) - 1 / k)).toBeLessThan(0.002);
  });
});

// the shorter the decay and the narrower the band, the more a noise at hand, not its power, moves the figure
it.each([
  [1000, 1.2],
  [2000, 0.8],
  [500, 1.6],
])(
  'has them for %f Hz and %f s with noise 45 dB down; T30, then 10 dB above it, on the mean of six noises',
  (centre, t60) => {
    const noisy = [1, 2, 3, 4, 5, 6].map(
      (seed) => roomFigures(decaying(centre, t60, 45, seed), band(centre))![0]!,
    );
    const c80 = 10 * Math.log10(Math.exp((0.08 * Math.log(1e6)) / t60) - 1);
    for (const f of noisy) {
      expect(Math.abs(valueOf(f.t20) / t60 - 1)).toBeLessThan(0.01);
      expect(Math.abs(valueOf(f.c80) - c80)).toBeLessThan(0.1);
    }
    const t30 = noisy.reduce((sum, f) => sum + valueOf(f.t30), 0) / noisy.length;
    expect(Math.abs(t30 / t60 - 1)).toBeLessThan(0.01);
  },
);

it('says how much range there is where a figure is missing', () => {
  const { t20, t30, edt } = roomFigures(decaying(1000, 1, 38), band(1000))![0]!;
  expect(t20.found).toBe(true);
  expect(edt.found).toBe(true);
  expect(t30).toEqual({ found: false, rangeDb: expect.closeTo(38, -0.7), needsDb: 45 });
});

it('finds nothing in zeros, and no decay in steady noise', () => {
  expect(roomFigures({ samples: new Float32Array(length), rate, zero })).toBeNull();
  const steady = roomFigures({ samples: whiteNoise(length, 3), rate, zero }, band(1000))![0]!;
  for (const name of FIGURES) expect(steady[name].found, name).toBe(false);
});

it('takes mean and spread over the spots that have a figure, and tells the best range where none has', () => {
  const found = (value: number): Found => ({ found: true, value });
  const lacking = (rangeDb: number): Found => ({ found: false, rangeDb, needsDb: 45 });
  expect(overSpots([found(1), found(3), lacking(20)])).toEqual({
    mean: 2,
    spread: 1,
    count: 2,
    of: 3,
    missing: null,
  });
  expect(overSpots([lacking(20), lacking(30)])).toMatchObject({
    count: 0,
    missing: { rangeDb: 30, needsDb: 45 },
  });
});
