import { describe, expect, it } from 'vitest';
import {
  biquadTrace,
  butterworth,
  filterBiquads,
  highShelf,
  logGrid,
  peaking,
  whiteNoise,
  type Biquad,
} from '../signal/index.js';
import { CrossSpectraAverager, type CrossSpectraSetup } from './crossSpectra.js';
import { findDelay } from './findDelay.js';
import { mergedCurve, transferCurve, withoutDelay } from './transferFunction.js';

const RATE = 48_000;
const SECONDS = 10;
const N = RATE * SECONDS;
const FILTER: Biquad[] = [
  peaking(300, 6, 1.4, RATE),
  peaking(3000, -8, 2, RATE),
  highShelf(8000, 4, 0.7, RATE),
];

/** Streams two inputs in parts of 128 samples, as an audio worklet brings them. */
function streamed(
  setup: Partial<CrossSpectraSetup>,
  reference: ArrayLike<number>,
  measured: ArrayLike<number>,
) {
  const averager = new CrossSpectraAverager({
    rate: RATE,
    size: 16_384,
    averaging: { kind: 'for ever' },
    delay: 0,
    ...setup,
  });
  const [x, y] = [Float32Array.from(reference), Float32Array.from(measured)];
  for (let at = 0; at + 128 <= x.length; at += 128)
    averager.push(at, x.subarray(at, at + 128), y.subarray(at, at + 128));
  return averager;
}
const level = (v: number) => 0.1 * v;
const source = whiteNoise(N, 11).map(level);
const noise = whiteNoise(N, 12).map(level);
const mixed = (a: ArrayLike<number>, b: ArrayLike<number>, by: number) =>
  Float64Array.from({ length: a.length }, (_, i) => a[i]! + by * b[i]!);
const later = (of: ArrayLike<number>, samples: number) =>
  Float64Array.from({ length: of.length }, (_, i) => (i >= samples ? of[i - samples]! : 0));
const db = (re: number, im: number) => 10 * Math.log10(re * re + im * im);
const degrees = (re: number, im: number) => (Math.atan2(im, re) * 180) / Math.PI;
const grid = logGrid(40, 18_000, 48);

describe('a transfer function while it sounds', () => {
  it('is that of a known filter within 0.2 dB and 2 degrees after 10 s, in noise, the delay set', () => {
    const through = later(filterBiquads(source, FILTER), 480);
    const { re, im, coherence } = transferCurve(
      streamed({ delay: 480 }, source, mixed(through, noise, 0.05)).read()!,
      grid,
    );
    let judged = 0;
    grid.forEach((f, n) => {
      if (!(coherence[n]! > 0.98)) return;
      judged++;
      const { re: c, im: d } = biquadTrace(FILTER, Float64Array.of(f), RATE);
      const want = { re: c[0]!, im: d[0]! };
      expect(Math.abs(db(re[n]!, im[n]!) - db(want.re, want.im)), `${f} Hz`).toBeLessThan(0.2);
      const turn = degrees(re[n]! * want.re + im[n]! * want.im, im[n]! * want.re - re[n]! * want.im);
      expect(Math.abs(turn), `${f} Hz`).toBeLessThan(2);
    });
    expect(judged / grid.length).toBeGreaterThan(0.95);
  });

  it.each([-10, 0, 10])(
    'has the coherence of its signal to noise ratio, SNR / (1 + SNR), at %d dB',
    (snrDb) => {
      const snr = 10 ** (snrDb / 10);
      const spectra = streamed({ size: 4096 }, source, mixed(source, noise, 1 / Math.sqrt(snr))).read()!;
      const { coherence } = transferCurve(spectra, grid);
      const mean = coherence.reduce((sum, v) => sum + v, 0) / coherence.length;
      expect(Math.abs(mean - snr / (1 + snr))).toBeLessThan(0.03);
    },
  );

  it('of a moving input keeps the level by powers, where waves would cancel', () => {
    // half of the time with the other polarity
    const moving = source.map((v, i) => (Math.floor(i / 4096) % 2 ? -v : v));
    const spectra = streamed({ size: 1024 }, source, moving).read()!;
    const at = Float64Array.of(1000, 2000, 4000);
    const [complex, power] = [transferCurve(spectra, at), transferCurve(spectra, at, 'power')];
    expect(db(complex.re[1]!, complex.im[1]!)).toBeLessThan(-6);
    expect(db(power.re[1]!, power.im[1]!)).toBeCloseTo(0, 0);
  });

  it('merged, it is the long one in the lows and the short one in the highs', () => {
    const through = filterBiquads(source, FILTER);
    const [long, short] = [65_536, 4096].map((size) =>
      transferCurve(streamed({ size }, source, mixed(through, noise, 0.02)).read()!, grid),
    );
    const merged = mergedCurve([long!, short!], [1000]);
    grid.forEach((f, n) => {
      if (f < 500) expect(merged.re[n]).toBe(long!.re[n]);
      if (f > 1000) expect(merged.re[n]).toBe(short!.re[n]);
      expect(Math.abs(db(merged.re[n]!, merged.im[n]!) - db(long!.re[n]!, long!.im[n]!))).toBeLessThan(0.6);
    });
  });

  it('exponential averages forget; a fixed number stands', () => {
    const louder = source.map((v, i) => (i > N / 2 ? 2 * v : v));
    const at = Float64Array.of(500, 1000, 2000);
    const read = (averaging: CrossSpectraSetup['averaging']) => {
      const { re, im } = transferCurve(streamed({ size: 4096, averaging }, source, louder).read()!, at);
      return db(re[1]!, im[1]!);
    };
    expect(read({ kind: 'exponential', seconds: 0.5 })).toBeCloseTo(6.02, 1);
    expect(read({ kind: 'fixed', blocks: 50 })).toBeCloseTo(0, 1);
    expect(read({ kind: 'for ever' })).toBeGreaterThan(2);
  });
});

describe('what gives no number', () => {
  it.each<[string, (i: number) => number, string]>([
    ['a silent input', () => 0, 'silent'],
    ['a clipped one', (i) => Math.max(-1, Math.min(1, 40 * source[i]!)), 'clipped'],
    ['one that is no number', (i) => (i === 300_000 ? NaN : source[i]!), 'broken'],
  ])('%s', (_, of, state) => {
    const bad = Float64Array.from({ length: N }, (__, i) => (i > N / 2 ? of(i) : source[i]!));
    const averager = streamed({}, source.subarray(0, 310_000), bad.subarray(0, 310_000));
    expect(averager.last).toBe(state);
    expect(averager.read()).toBeNull();
    expect(averager.taken[state as 'silent']).toBeGreaterThan(0);
  });

  it('no block reaches over a gap, and what was lost is counted', () => {
    const averager = new CrossSpectraAverager({
      rate: RATE,
      size: 4096,
      averaging: { kind: 'for ever' },
      delay: 0,
    });
    const part = Float32Array.from(source.subarray(0, 4000));
    averager.push(0, part, part);
    averager.push(4128, part, part);
    expect(averager.lostSamples).toBe(128);
    expect(averager.read()).toBeNull();
    averager.push(8128, part, part);
    // 8,000 samples in a row hold two blocks
    expect(averager.taken.good).toBe(2);
    expect(averager.lostSamples).toBe(128);
  });

  it('a frequency at which the reference has nothing', () => {
    // of order 24: 144 dB for each octave
    const low = filterBiquads(
      source,
      [1, 2, 3].flatMap(() => butterworth('lowpass', 8, 1000, RATE)),
    );
    const { re } = transferCurve(
      streamed({ size: 4096 }, low, low).read()!,
      Float64Array.of(100, 200, 15_000),
    );
    expect(re[0]).toBeCloseTo(1, 6);
    expect(re[2]).toBeNaN();
  });
});

describe('the delay', () => {
  it('is found within 0.02 ms at 0 dB of signal to noise, with fractions of a sample', () => {
    const spectra = streamed({ size: 65_536 }, source, mixed(later(source, 1234), noise, 1)).read()!;
    const found = findDelay(spectra, RATE)!;
    expect(Math.abs(found.delayS - 1234 / RATE)).toBeLessThan(2e-5);
    expect(found.sure).toBeGreaterThan(0.5);
    expect(found.nextS).toBeNull();
    // a third of a sample by the phase alone
    const clean = streamed({ size: 16_384 }, source, later(source, 100)).read()!;
    const turn = clean.frequency.map((f) => (-2 * Math.PI * f) / (3 * RATE));
    const fraction = {
      ...clean,
      re: clean.re.map((v, k) => v * Math.cos(turn[k]!) - clean.im[k]! * Math.sin(turn[k]!)),
      im: clean.im.map((v, k) => v * Math.cos(turn[k]!) + clean.re[k]! * Math.sin(turn[k]!)),
    };
    expect(findDelay(fraction, RATE)!.delayS * RATE).toBeCloseTo(100 + 1 / 3, 2);
  });

  it('of a source from 30 to 100 Hz within 0.3 ms at 20 dB, whichever way round', () => {
    for (const by of [1, -1]) {
      const through = later(source, 1920).map((v) => by * v);
      const spectra = streamed({ size: 65_536, step: 0.25 }, source, mixed(through, noise, 0.1)).read()!;
      const found = findDelay(spectra, RATE, { from: 30, to: 100 })!;
      expect(Math.abs(found.delayS - 0.04)).toBeLessThan(3e-4);
      expect(found.spreadS).toBeLessThan(3e-4);
    }
  });

  it('names the next best where an echo is nearly as strong, and is less sure of the first', () => {
    const echo = mixed(later(source, 300), later(source, 900), 0.8);
    const found = findDelay(streamed({ size: 16_384 }, source, echo).read()!, RATE)!;
    expect(found.delayS * RATE).toBeCloseTo(300, 0);
    expect(found.nextS! * RATE).toBeCloseTo(900, 0);
    expect(found.sure).toBeLessThan(0.5);
  });

  it('is not found where nothing is coherent, and a curve without it has its phase at rest', () => {
    const silent = streamed({ size: 4096 }, source, noise).read()!;
    const found = findDelay({ ...silent, re: silent.re.map(() => 0), im: silent.im.map(() => 0) }, RATE);
    expect(found).toBeNull();
    const curve = transferCurve(streamed({ size: 16_384 }, source, later(source, 24)).read()!, grid);
    const { im } = withoutDelay(curve, 24 / RATE);
    expect(Math.max(...im.map(Math.abs))).toBeLessThan(0.02);
  });
});

describe('blocks that count by coherence', () => {
  const through = filterBiquads(source, FILTER);
  const grid = logGrid(100, 15_000, 12);
  const truth = biquadTrace(FILTER, grid, RATE);
  /** How far levels lie from the truth, RMS, and on the mean, dB. */
  const off = (byCoherence: boolean, measured: ArrayLike<number>) => {
    // softly, so that nothing clips
    const soft = (of: ArrayLike<number>) => Float64Array.from(of, (v) => 0.05 * v);
    const spectra = streamed({ size: 4096, byCoherence }, soft(source), soft(measured)).read()!;
    const { re, im } = transferCurve(spectra, grid);
    const errors = grid.map((_, n) => db(re[n]!, im[n]!) - db(truth.re[n]!, truth.im[n]!));
    const sum = (of: Float64Array) => of.reduce((a, b) => a + b, 0) / of.length;
    return { rms: Math.sqrt(sum(errors.map((e) => e * e))), mean: sum(errors) };
  };

  it('leave out most of what a bang or a passer-by adds', () => {
    // for three of ten seconds it is 26 dB louder than what is measured
    const disturbed = through.map((v, i) => v + (i > 4 * RATE && i < 7 * RATE ? 20 * noise[i]! : 0));
    expect(off(false, disturbed).rms).toBeGreaterThan(1);
    expect(off(true, disturbed).rms).toBeLessThan(0.4 * off(false, disturbed).rms);
  });

  it('say the same where the noise is always alike: no bias to either side', () => {
    const noisy = mixed(through, noise, 1);
    expect(off(true, noisy).rms).toBeLessThan(0.3);
    expect(Math.abs(off(true, noisy).mean)).toBeLessThan(0.05);
    const fixed = streamed(
      { size: 4096, byCoherence: true, averaging: { kind: 'fixed', blocks: 8 } },
      source,
      noisy,
    );
    // noise makes all but the first count a little less than one, about alike
    expect(fixed.blocks).toBeGreaterThan(7);
    expect(fixed.blocks).toBeLessThanOrEqual(8);
  });
});
