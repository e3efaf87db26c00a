import { expect, it } from 'vitest';
import { logGrid, seededRandom, type ComplexTrace } from '../signal/index.js';
import { findJoint, jointEfficiency, readPair, type JointPoint, type JointSetting } from './index.js';

const grid = logGrid(40, 200, 12);
/** As loud everywhere, at its time, with what comes back of it from the room. */
const source = (delayS: number, gain = 1, echoes: [number, number][] = []): ComplexTrace => {
  const re = new Float64Array(grid.length);
  const im = new Float64Array(grid.length);
  for (const [g, t] of [[1, 0], ...echoes] as [number, number][])
    grid.forEach((f, n) => {
      re[n] = re[n]! + gain * g * Math.cos(2 * Math.PI * f * (delayS + t));
      im[n] = im[n]! - gain * g * Math.sin(2 * Math.PI * f * (delayS + t));
    });
  return { frequency: grid, re, im };
};

it('four that are only late and inverted are brought to one', () => {
  const point = {
    sources: [source(0.01), source(0.004), source(0.0165, -0.7), source(0.0121, 1.2)],
    weight: 1,
  };
  const found = findJoint([point], 0.03)!;
  expect(found.efficiency).toBeCloseTo(1, 4);
  [0.006, -0.0065, -0.0021].forEach((s, i) => expect(found.settings[i]!.delayS).toBeCloseTo(s, 4));
  expect(found.settings.map((s) => s.inverted)).toEqual([false, true, false]);
});

it('of the whole range, where a search takes a part of the frequencies, delays are found to a hundredth of a millisecond', () => {
  const wide = logGrid(20, 20_000, 48);
  const late = (delayS: number, gain: number): ComplexTrace => ({
    frequency: wide,
    re: wide.map((f) => gain * Math.cos(2 * Math.PI * f * delayS)),
    im: wide.map((f) => -gain * Math.sin(2 * Math.PI * f * delayS)),
  });
  const delays = [0.004, 0.0091, 0.0005];
  const points = [1, 0.7].map((gain) => ({
    sources: [late(0.006, 1), late(delays[0]!, gain), late(delays[1]!, -1), late(delays[2]!, 1.2)],
    weight: gain,
  }));
  const found = findJoint(points, 0.01)!;
  expect(found.efficiency).toBeGreaterThan(0.999);
  found.settings.forEach(({ delayS }, i) =>
    expect(Math.abs(delayS - (0.006 - delays[i]!))).toBeLessThan(1e-5),
  );
  expect(found.settings.map((s) => s.inverted)).toEqual([false, true, false]);
});

it('two are what a pair is', () => {
  const [a, b] = [source(0, 1, [[0.5, 0.011]]), source(0.003, 0.6, [[-0.4, 0.02]])];
  const reading = readPair(a, b);
  if (!('meanEfficiency' in reading)) throw new Error('no band');
  const still = [{ delayS: 0, inverted: false }];
  expect(jointEfficiency([{ sources: [a, b], weight: 1 }], still)).toBeCloseTo(reading.meanEfficiency, 9);
});

it('three over several seats lie within 0.05 dB of trying everything', () => {
  const random = seededRandom(11);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const steps = Array.from({ length: 25 }, (_, i) => (i - 12) * 4e-4);
  for (let draw = 0; draw < 6; draw++) {
    const echoes = () =>
      Array.from({ length: 3 }, (): [number, number] => [between(-0.4, 0.4), between(0.002, 0.03)]);
    const points = Array.from({ length: 2 }, (): JointPoint => ({
      sources: [0, 1, 2].map(() => source(between(0, 0.004), between(0.7, 1.4), echoes())),
      weight: between(0.5, 1),
    }));
    const found = findJoint(points, 0.005)!;
    expect(jointEfficiency(points, found.settings)).toBeCloseTo(found.efficiency, 9);
    let most = 0;
    for (const one of steps)
      for (const other of steps)
        for (let flips = 0; flips < 4; flips++) {
          const settings: JointSetting[] = [
            { delayS: one, inverted: flips % 2 === 1 },
            { delayS: other, inverted: flips > 1 },
          ];
          most = Math.max(most, byHand(points, settings));
        }
    expect(20 * Math.log10(found.efficiency / most)).toBeGreaterThan(-0.05);
  }
});

/** Mean efficiency by its definition, where all are within 10 dB anyway. */
function byHand(points: JointPoint[], settings: JointSetting[]): number {
  let [all, weights] = [0, 0];
  for (const { sources, weight } of points) {
    let [sum, counts] = [0, 0];
    const known = weightsOf(sources);
    grid.forEach((f, n) => {
      if (!(known[n]! > 0)) return;
      let [re, im, magnitudes] = [0, 0, 0];
      sources.forEach((s, i) => {
        const set = i === 0 ? { delayS: 0, inverted: false } : settings[i - 1]!;
        const turn = (set.inverted ? Math.PI : 0) - 2 * Math.PI * f * set.delayS;
        re += s.re[n]! * Math.cos(turn) - s.im[n]! * Math.sin(turn);
        im += s.im[n]! * Math.cos(turn) + s.re[n]! * Math.sin(turn);
        magnitudes += Math.hypot(s.re[n]!, s.im[n]!);
      });
      sum += (known[n]! * Math.hypot(re, im)) / magnitudes;
      counts += known[n]!;
    });
    all += (weight * sum) / counts;
    weights += weight;
  }
  return all / weights;
}

const cached = new WeakMap<readonly ComplexTrace[], number[]>();
/** How far the two loudest are apart, from pairs alone: the least apart of those that have the loudest in them. */
function weightsOf(sources: readonly ComplexTrace[]): number[] {
  const known = cached.get(sources);
  if (known) return known;
  const pairs = sources.flatMap((a, i) => sources.slice(i + 1).map((b) => readPair(a, b)));
  const apart = pairs.map((p) => ('apartDb' in p && !('reason' in p) ? p.apartDb : null)!);
  const [ab, ac, bc] = apart as [Float64Array, Float64Array, Float64Array];
  const found = [...grid.keys()].map((n) => {
    const levels = [0, ab[n]!, ac[n]!].sort((a, b) => b - a);
    expect(ac[n]! - ab[n]!).toBeCloseTo(bc[n]!, 6);
    return Math.max(0, 1 - (levels[0]! - levels[1]!) / 10);
  });
  cached.set(sources, found);
  return found;
}

it('says nothing of sources that nowhere meet, and refuses what are none', () => {
  expect(findJoint([{ sources: [source(0), source(0, 0.01)], weight: 1 }], 0.01)).toBeNull();
  expect(jointEfficiency([{ sources: [source(0), source(0, 0.01)], weight: 1 }], [])).toBeNull();
  expect(() => findJoint([{ sources: [source(0)], weight: 1 }], 0.01)).toThrow(/two sources/);
  expect(() => findJoint([], 0.01)).toThrow(/two sources/);
  expect(() => findJoint([{ sources: [source(0), source(0)], weight: 1 }], 0)).toThrow(/largest delay/);
});
