import { describe, expect, it } from 'vitest';
import {
  binFrequencies,
  convolve,
  filterBiquads,
  logGrid,
  peaking,
  realFft,
  type ComplexTrace,
} from '../signal/index.js';
import {
  inSeries,
  pathTrace,
  responseAt,
  signalPath,
  sumPaths,
  sumPathsAtPoints,
  sumPathsInTime,
  throughFilters,
} from './index.js';

const rate = 48000;
const tap = (at: number, zero: number, v = 1) => {
  const samples = new Float64Array(400);
  samples[at] = v;
  return { samples, rate, zero };
};
const grid = logGrid(30, 300, 12);
const constant = (value: number): ComplexTrace => ({
  frequency: grid,
  re: grid.map(() => value),
  im: grid.map(() => 0),
});

describe('a path', () => {
  it('inverts, delays and lowers as it says, by the taps of its FIR too', () => {
    const fir = new Float32Array(480);
    fir[96] = 0.5; // 2 ms later, 6.02 dB down
    const { re, im } = pathTrace(signalPath(rate, { fir, gainDb: -3, delayS: 0.003, inverted: true }), grid);
    grid.forEach((f, k) => {
      const gain = -0.5 * 10 ** (-3 / 20);
      const angle = -2 * Math.PI * f * 0.005;
      expect(re[k]).toBeCloseTo(gain * Math.cos(angle), 3);
      expect(im[k]).toBeCloseTo(gain * Math.sin(angle), 3);
    });
  });

  it('is the same on a grid as on the bins of a transform', () => {
    const fir = Float64Array.of(0.2, 0.9, -0.3);
    const path = signalPath(rate, { fir, filters: [peaking(1000, 5, 2, rate)], delayS: 0.0017, gainDb: 2 });
    const bins = binFrequencies(4096, rate);
    const picked = [5, 85, 400, 2000];
    const onBins = pathTrace(path, bins);
    const onGrid = pathTrace(
      path,
      Float64Array.from(picked, (k) => bins[k]!),
    );
    picked.forEach((k, i) => {
      expect(onGrid.re[i]).toBeCloseTo(onBins.re[k]!, 6);
      expect(onGrid.im[i]).toBeCloseTo(onBins.im[k]!, 6);
    });
  });

  it('behind another one multiplies with it', () => {
    const a = signalPath(rate, { fir: Float64Array.of(0.5, 0.2), delayS: 0.001, inverted: true });
    const b = signalPath(rate, { fir: Float64Array.of(1, -0.4), gainDb: -4, inverted: true });
    const both = pathTrace(inSeries(a, b), grid);
    const [one, other] = [pathTrace(a, grid), pathTrace(b, grid)];
    grid.forEach((_, k) => {
      expect(both.re[k]).toBeCloseTo(one.re[k]! * other.re[k]! - one.im[k]! * other.im[k]!, 5);
      expect(both.im[k]).toBeCloseTo(one.re[k]! * other.im[k]! + one.im[k]! * other.re[k]!, 5);
    });
    expect(() => inSeries(a, signalPath(44100))).toThrow(/48000 and 44100/);
  });

  it('filters a signal as its response says', () => {
    const path = signalPath(rate, {
      fir: Float64Array.of(0.5, 0.25),
      filters: [peaking(400, -5, 2, rate)],
      gainDb: -6,
    });
    const want = filterBiquads(convolve(tap(10, 0).samples, path.fir!), path.filters);
    throughFilters(tap(10, 0).samples, path).forEach((v, i) =>
      expect(v).toBeCloseTo(10 ** (-6 / 20) * want[i]!, 12),
    );
  });

  it('lets nothing through where it is muted', () => {
    expect(pathTrace(signalPath(rate, { gainDb: -Infinity }), grid).re.every((v) => v === 0)).toBe(true);
  });
});

it('a delayed impulse has a phase that falls with frequency, read on a grid and on bins', () => {
  const samples = new Float64Array(4096);
  samples[580] = 0.5;
  const some = Float64Array.of(50, 100, 1000);
  const bins = binFrequencies(8192, rate);
  for (const frequency of [some, bins]) {
    const { re, im } = responseAt({ samples, rate, zero: 100 }, frequency);
    for (const k of [0, 1, 2]) {
      const angle = -2 * Math.PI * frequency[k]! * 0.01;
      expect(re[k]).toBeCloseTo(0.5 * Math.cos(angle), 4);
      expect(im[k]).toBeCloseTo(0.5 * Math.sin(angle), 4);
    }
  }
});

describe('sources summed at a point', () => {
  it('add up in time, each through its path, their time zeros laid over each other', () => {
    const { samples, zero } = sumPathsInTime([
      { response: tap(100, 20), path: signalPath(rate) },
      { response: tap(90, 50, 0.5), path: signalPath(rate, { inverted: true, delayS: 0.001 }) },
    ]);
    expect(zero).toBe(50);
    expect(samples[130]).toBeCloseTo(1, 9); // 80 after zero
    expect(samples[90 + 48]).toBeCloseTo(-0.5, 9);
    expect(() => sumPathsInTime([])).toThrow(/at least one/);
    expect(() => sumPathsInTime([{ response: tap(1, 0), path: signalPath(44100) }])).toThrow(/one rate/);
  });

  it('are the same in time, over frequency and at several points at once', () => {
    const paths = [
      signalPath(rate, { filters: [peaking(200, 6, 2, rate)], delayS: 0.002 }),
      signalPath(rate, { gainDb: -3, inverted: true }),
    ];
    const impulses = [tap(30, 10), tap(77, 10, 0.7)];
    const inTime = sumPathsInTime(impulses.map((response, i) => ({ response, path: paths[i]! })));
    const responses = impulses.map((impulse) => responseAt(impulse, grid));
    const atPoint = sumPaths(responses.map((response, i) => ({ response, path: paths[i]! })));
    const [first, second] = sumPathsAtPoints(
      paths.map((path) => ({ path })),
      responses.map((r) => [r, r]),
    );
    const truth = responseAt(inTime, grid);
    grid.forEach((_, k) => {
      for (const trace of [atPoint, first!, second!]) {
        expect(trace.re[k]).toBeCloseTo(truth.re[k]!, 3);
        expect(trace.im[k]).toBeCloseTo(truth.im[k]!, 3);
      }
    });
    expect(() => sumPathsAtPoints([{ path: paths[0]! }], [])).toThrow(/1 sources want/);
  });

  it('one path takes the place of the one that was measured through: magnitudes of both, from their closed form', () => {
    // two equal gains of a peak cancel; 6 dB more are 6 dB more
    const path = signalPath(rate, { filters: [peaking(100, 8, 1, rate)], gainDb: 6 });
    const measuredThrough = signalPath(rate, { filters: [peaking(100, 8, 1, rate)], delayS: 0.001 });
    const { re, im } = sumPaths([{ response: constant(1), path, measuredThrough }]);
    grid.forEach((f, k) => {
      expect(Math.hypot(re[k]!, im[k]!)).toBeCloseTo(10 ** (6 / 20), 9);
      expect(Math.atan2(im[k]!, re[k]!)).toBeCloseTo(
        Math.atan2(Math.sin(2 * Math.PI * f * 0.001), Math.cos(2 * Math.PI * f * 0.001)),
        9,
      );
    });
  });

  it('give back no more than 30 dB of what an old path took', () => {
    const measuredThrough = signalPath(rate, { gainDb: -70 });
    const { re } = sumPaths([{ response: constant(1), path: signalPath(rate), measuredThrough }]);
    // 1 / h for h = 10^-3.5, limited to h / 10^-3
    re.forEach((v) => expect(v).toBeCloseTo(10 ** -3.5 / 10 ** -3, 9));
  });

  it('refuse traces of other frequencies', () => {
    const other = realFft(new Float64Array(8));
    expect(() =>
      sumPaths([
        { response: constant(1), path: signalPath(rate) },
        { response: other, path: signalPath(rate) },
      ]),
    ).toThrow(/do not match/);
  });
});
