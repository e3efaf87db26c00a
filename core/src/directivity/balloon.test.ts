import { describe, expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { layerGain, layerOf, type Layer, type Way } from './balloon.js';
import { beamwidthDeg, directivityIndexDb } from './figures.js';
import { pistonGain, radiatorGain, type Radiator } from './radiators.js';
import { crossoverTrace } from './wayFilter.js';

const C = 343;
const way = (radiator: Radiator, over: Partial<Way> = {}): Way => ({
  radiator,
  ahead: 0,
  left: 0,
  up: 0,
  gainDb: 0,
  filters: [],
  ...over,
});
const POINT: Radiator = { kind: 'point' };
const db = ({ re, im }: { re: number; im: number }) => 10 * Math.log10(re * re + im * im);

/** Directions all over the sphere, the same each time. */
function directions(count: number): [ahead: number, left: number, up: number][] {
  const { uniform: random } = seededRandom(7);
  return Array.from({ length: count }, () => {
    const [z, turn] = [2 * random() - 1, 2 * Math.PI * random()];
    const r = Math.sqrt(1 - z * z);
    return [z, r * Math.cos(turn), r * Math.sin(turn)];
  });
}

describe('a balloon between its directions', () => {
  const K = (f: number) => (2 * Math.PI * f) / C;
  it.each<[string, Radiator, number]>([
    ['a cone of 12 inches', { kind: 'cap', radiusM: 0.13, sphereM: 0.22 }, 2500],
    ['a small one high up', { kind: 'cap', radiusM: 0.012, sphereM: 0.15 }, 20_000],
    ['the opening of a line element', { kind: 'opening', widthM: 0.03, heightM: 0.28, sphereM: 0.2 }, 16_000],
  ])('stays within 0.3 dB of its source: %s', (_, radiator, f) => {
    const layer = layerOf([way(radiator)], f, C);
    const gain = radiatorGain(radiator, K(f));
    let worst = 0;
    for (const [ahead, left, up] of directions(800)) {
      const want = gain(Math.acos(ahead), Math.atan2(up, left));
      // where it is 25 dB down nobody listens
      if (db(want) > -25) worst = Math.max(worst, Math.abs(db(layerGain(layer, ahead, left, up)) - db(want)));
    }
    expect(worst).toBeLessThan(0.3);
  });

  it('two ways above each other: the sum of both, with the way that lies between them', () => {
    const f = 2200;
    const ways = [
      way(POINT, { up: -0.09, filters: [{ kind: 'low-pass', frequency: 2000, order: 4 }] }),
      way(POINT, { up: 0.09, filters: [{ kind: 'high-pass', frequency: 2000, order: 4 }] }),
    ];
    const layer = layerOf(ways, f, C);
    const [lo, hi] = ways.map((w) => crossoverTrace(w.filters[0]!, f)) as [
      { re: number; im: number },
      { re: number; im: number },
    ];
    const at = (up: number) => {
      const p = K(f) * 0.09 * up;
      const [c, s] = [Math.cos(p), Math.sin(p)];
      return { re: (lo.re + hi.re) * c + (lo.im - hi.im) * s, im: (lo.im + hi.im) * c + (hi.re - lo.re) * s };
    };
    for (const [ahead, left, up] of directions(300)) {
      const want = db(at(up)) - db(at(0));
      if (want > -25) expect(Math.abs(db(layerGain(layer, ahead, left, up)) - want)).toBeLessThan(0.3);
    }
  });

  it('is seamless over its poles and where it begins about its axis', () => {
    const layer = layerOf([way({ kind: 'cap', radiusM: 0.1, sphereM: 0.2 }, { up: 0.3, left: 0.2 })], 900, C);
    const near = (a: [number, number, number], b: [number, number, number]) => {
      const [p, q] = [layerGain(layer, ...a), layerGain(layer, ...b)];
      expect(Math.hypot(p.re - q.re, p.im - q.im)).toBeLessThan(2e-3);
    };
    near([Math.cos(1e-4), Math.sin(1e-4), 0], [Math.cos(1e-4), -Math.sin(1e-4), 0]);
    near([-Math.cos(1e-4), 0, Math.sin(1e-4)], [-Math.cos(1e-4), 0, -Math.sin(1e-4)]);
    near([0.3, Math.sqrt(0.91), 1e-5], [0.3, Math.sqrt(0.91), -1e-5]);
  });
});

describe('what is read off a balloon', () => {
  it('a point has no directivity, a piston in a baffle 3 dB when it is small', () => {
    expect(directivityIndexDb(layerOf([way(POINT)], 100, C))).toBeCloseTo(0, 9);
    expect(directivityIndexDb(layerOf([way({ kind: 'piston', radiusM: 0.05 })], 50, C))).toBeCloseTo(3.01, 1);
  });

  it('a piston has that of Rayleigh: (ka)^2 / (1 - J1(2ka) / ka)', () => {
    const [f, a] = [2000, 0.15];
    const ka = (2 * Math.PI * f * a) / C;
    // J1(2ka) / ka is half of its form with sin = 1 and twice the argument
    const factor = ka ** 2 / (1 - pistonGain(2 * ka, Math.PI / 2));
    expect(directivityIndexDb(layerOf([way({ kind: 'piston', radiusM: a })], f, C))).toBeCloseTo(
      10 * Math.log10(factor),
      1,
    );
  });

  it('a piston is 6 dB down where ka sin is 2.2151', () => {
    const [f, a] = [3000, 0.15];
    const ka = (2 * Math.PI * f * a) / C;
    const layer = layerOf([way({ kind: 'piston', radiusM: a })], f, C);
    const want = (2 * Math.asin(2.2151 / ka) * 180) / Math.PI;
    // at 6.02 dB, to be exact
    expect(Math.abs(beamwidthDeg(layer, 'horizontal') - want)).toBeLessThan(0.1);
    expect(Math.abs(beamwidthDeg(layer, 'vertical') - want)).toBeLessThan(0.1);
    expect(beamwidthDeg(layerOf([way(POINT)], 100, C), 'vertical')).toBe(360);
  });

  it('a line is narrow along itself only: sinc', () => {
    const layer: Layer = layerOf(
      [way({ kind: 'opening', widthM: 0.01, heightM: 0.3, sphereM: 0.01 })],
      4000,
      C,
    );
    // sinc(x) is half at x = 1.8955
    const want = (2 * Math.asin((1.8955 * C) / (Math.PI * 4000 * 0.3)) * 180) / Math.PI;
    expect(Math.abs(beamwidthDeg(layer, 'vertical') - want)).toBeLessThan(0.6);
    expect(beamwidthDeg(layer, 'horizontal')).toBeGreaterThan(150);
  });
});

it('ways of order 2, 4 and 8 add up to what passes all', () => {
  for (const order of [2, 4, 8] as const)
    for (const f of [200, 1000, 1700, 9000]) {
      const low = crossoverTrace({ kind: 'low-pass', frequency: 1000, order }, f);
      const high = crossoverTrace({ kind: 'high-pass', frequency: 1000, order }, f);
      expect(Math.hypot(low.re + high.re, low.im + high.im)).toBeCloseTo(1, 9);
    }
});

it('refuses ways that cancel on the axis', () => {
  const ways = [way(POINT), way(POINT, { ahead: C / 2000 })];
  expect(() => layerOf(ways, 1000, C)).toThrow(/cancel each other on the axis at 1000 Hz/);
});
