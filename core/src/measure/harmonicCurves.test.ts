import { splitHarmonics } from './harmonics.js';
import { expect, it } from 'vitest';
import { exponentialSweep, whiteNoise } from '../signal/index.js';
import { deconvolve, harmonicCurves, impulseFrom, packHarmonics, unpackHarmonics } from './index.js';

const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -6 });
const curvesOf = (bend: (x: number) => number) => {
  const played = Float64Array.from(sweep.samples, bend);
  const circular = impulseFrom(deconvolve(played, sweep, 1 << 18), 0);
  const samples = new Float64Array(4096);
  for (let i = 0; i < 4096; i++) samples[i] = circular[(i - 512 + circular.length) % circular.length]!;
  return harmonicCurves(splitHarmonics(circular, sweep), sweep, { samples, rate: 48000, zero: 512 });
};

it('puts each harmonic of a bent line over the frequency that was played, at its analytic level', () => {
  const a = 10 ** (-6 / 20);
  const [c2, c3] = [0.05, 0.03];
  const { frequency, orders } = curvesOf((x) => x + c2 * x * x + c3 * x ** 3);
  const fundamental = 1 + (3 * c3 * a * a) / 4;
  const want = [0.5 * c2 * a, 0.25 * c3 * a * a].map((v) => 20 * Math.log10(v / fundamental));
  for (const f of [100, 250, 1000, 3000]) {
    const i = frequency.findIndex((g) => g >= f);
    expect(orders[0]!.levelDb[i], `second at ${f} Hz`).toBeCloseTo(want[0]!, 0);
    expect(Math.abs(orders[0]!.levelDb[i]! - want[0]!)).toBeLessThan(0.3);
    expect(Math.abs(orders[1]!.levelDb[i]! - want[1]!)).toBeLessThan(0.3);
  }
});

it('ends a harmonic where it leaves the band, and keeps a straight line free of them', () => {
  const { frequency, orders } = curvesOf((x) => x);
  for (const { order, levelDb, noiseDb } of orders) {
    expect(frequency[levelDb.length - 1]! * order).toBeLessThanOrEqual(20000);
    expect(noiseDb).toHaveLength(levelDb.length);
    const i = frequency.findIndex((g) => g >= 500);
    expect(levelDb[i]).toBeLessThan(-80);
  }
});

it('knows the noise at every frequency, where the recording is shorter than the transform, too', () => {
  // 4.8 s in a circle of 5.46 s: a stretch of it holds no noise, at another time for each frequency
  const noise = whiteNoise(230400, 5).map((v) => 1e-3 * v);
  const circular = impulseFrom(deconvolve(noise, sweep, 1 << 18), 28800);
  const samples = new Float64Array(1024);
  samples[100] = 1;
  const { orders } = harmonicCurves(splitHarmonics(circular, sweep), sweep, {
    samples,
    rate: 48000,
    zero: 100,
  });
  // what noise alone reads is then what stands there as the harmonics
  for (const { levelDb, noiseDb } of orders)
    levelDb.forEach((db, i) => i > 12 && expect(Math.abs(db - noiseDb[i]!)).toBeLessThan(8));
});

it('packs curves into one array and back', () => {
  const curves = curvesOf((x) => x + 0.05 * x * x);
  const back = unpackHarmonics(packHarmonics(curves))!;
  expect(back.orders.map((o) => o.order)).toEqual(curves.orders.map((o) => o.order));
  back.orders.forEach(({ levelDb, noiseDb }, i) => {
    expect(levelDb).toEqual(curves.orders[i]!.levelDb.map((v) => expect.closeTo(v, 4)));
    expect(noiseDb).toHaveLength(curves.orders[i]!.noiseDb.length);
  });
  back.frequency.forEach((f, i) => expect(f).toBeCloseTo(curves.frequency[i]!, 1));
  expect(unpackHarmonics(new Float32Array(100))).toBeNull();
});
