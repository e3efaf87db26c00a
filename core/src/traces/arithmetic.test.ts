import { describe, expect, it } from 'vitest';
import { biquadTrace, butterworth, highShelf, peaking } from '../signal/index.js';
import {
  alikeWithin,
  allPassed,
  averageOfCurves,
  curveOfShapes,
  delayRemoved,
  differenceOfCurves,
  evaluateFormula,
  excessPhasePart,
  extremeOfCurves,
  inverseOfCurve,
  LIBRARY_GRID,
  minimumPhasePart,
  productOfCurves,
  ratioOfCurves,
  splicedCurves,
  sumOfCurves,
  viewedCurve,
  type Formula,
  type LibraryCurve,
} from './index.js';

type Of = (f: number) => [re: number, im: number];
const curveOf = (of: Of, change: Partial<LibraryCurve> = {}, frequency = LIBRARY_GRID): LibraryCurve => ({
  frequency,
  re: frequency.map((f) => of(f)[0]),
  im: frequency.map((f) => of(f)[1]),
  coherence: frequency.map(() => NaN),
  hasPhase: true,
  ...change,
});
/** A first-order low-pass at 1 kHz and its high-pass: 1 / (1 + jx) and jx / (1 + jx). */
const lowPass: Of = (f) => [1 / (1 + (f / 1000) ** 2), -(f / 1000) / (1 + (f / 1000) ** 2)];
const highPass: Of = (f) => [(f / 1000) ** 2 / (1 + (f / 1000) ** 2), f / 1000 / (1 + (f / 1000) ** 2)];
const delayed =
  (s: number): Of =>
  (f) => [Math.cos(2 * Math.PI * f * s), -Math.sin(2 * Math.PI * f * s)];
const [low, high] = [curveOf(lowPass), curveOf(highPass)];
const expectCurve = (found: LibraryCurve, of: Of, within = 1e-9) =>
  found.frequency.forEach((f, n) => {
    const [re, im] = of(f);
    expect(Math.abs(found.re[n]! - re), `re at ${f}`).toBeLessThan(within);
    expect(Math.abs(found.im[n]! - im), `im at ${f}`).toBeLessThan(within);
  });

describe('arithmetic of curves, against closed forms', () => {
  it('sum: a low-pass and its high-pass of first order are one', () => {
    expectCurve(sumOfCurves([low, high]), () => [1, 0]);
  });
  it('difference: they are an all-pass of first order, (1 - jx) / (1 + jx)', () => {
    expectCurve(differenceOfCurves(low, high), (f) => {
      const x = f / 1000;
      return [(1 - x * x) / (1 + x * x), (-2 * x) / (1 + x * x)];
    });
  });
  it('product: two delays are their sum', () => {
    expectCurve(productOfCurves([curveOf(delayed(0.001)), curveOf(delayed(0.0007))]), delayed(0.0017));
  });
  it('ratio: the high-pass over the low-pass is jx', () => {
    expectCurve(ratioOfCurves(high, low), (f) => [0, f / 1000], 1e-8);
  });
  it('inverse: 1 + jx', () => {
    expectCurve(inverseOfCurve(low), (f) => [1, f / 1000], 1e-8);
  });
  it('delay removed', () => {
    expectCurve(delayRemoved(curveOf(delayed(0.0123)), 0.0123), () => [1, 0]);
  });
  it('seen later, softer and inverted, and back', () => {
    const seen = viewedCurve(low, { gainDb: -6, delayS: 0.002, inverted: true, shapes: [] });
    const back = viewedCurve(seen, { gainDb: 6, delayS: -0.002, inverted: true, shapes: [] });
    expectCurve(back, lowPass);
    expectCurve(
      viewedCurve(
        curveOf(() => [1, 0]),
        { gainDb: 0, delayS: 0.001, inverted: false, shapes: [] },
      ),
      delayed(0.001),
    );
  });
  it('averages of power, complex and in dB', () => {
    const [one, two] = [curveOf(() => [3, 0]), curveOf(() => [0, 1])];
    const level = (c: LibraryCurve) => Math.hypot(c.re[50]!, c.im[50]!);
    expect(level(averageOfCurves([one, two], 'power'))).toBeCloseTo(Math.sqrt(5), 9);
    expect(level(averageOfCurves([one, two], 'complex'))).toBeCloseTo(Math.hypot(1.5, 0.5), 9);
    expect(level(averageOfCurves([one, two], 'level'))).toBeCloseTo(Math.sqrt(3), 9);
    expect(level(extremeOfCurves([one, two], 'largest'))).toBe(3);
    expect(level(extremeOfCurves([one, two], 'smallest'))).toBe(1);
  });
  it('splice: the first below, the second above, nothing of the other even where it is not known', () => {
    const unknown = curveOf((f) => (f > 2000 ? [NaN, NaN] : [1, 0]));
    const found = splicedCurves(
      unknown,
      curveOf(() => [2, 0]),
      1000,
      1,
    );
    found.frequency.forEach((f, n) => {
      if (f < 700) expect(found.re[n]).toBe(1);
      if (f > 1420) expect(found.re[n]).toBe(2);
    });
  });
  it('all-pass: the level stays, the phase turns by 180 degrees at its frequency', () => {
    const found = allPassed(
      curveOf(() => [1, 0]),
      500,
      0.7,
    );
    const at = found.frequency.reduce(
      (b, f, n) => (Math.abs(f - 500) < Math.abs(found.frequency[b]! - 500) ? n : b),
      0,
    );
    found.re.forEach((v, n) => expect(Math.hypot(v, found.im[n]!)).toBeCloseTo(1, 9));
    expect(found.re[at]).toBeLessThan(-0.99);
  });
});

describe('phase of least delay', () => {
  const RATE = 192_000;
  const sections = [
    ...butterworth('highpass', 2, 60, RATE),
    peaking(400, 6, 1.2, RATE),
    highShelf(6000, -5, 0.7, RATE),
  ];
  const trace = biquadTrace(sections, LIBRARY_GRID, RATE);
  const at = (n: number): [number, number] => [trace.re[n]!, trace.im[n]!];
  const minimum = curveOf((f) => at(LIBRARY_GRID.indexOf(f)));
  const degrees = (re: number, im: number) => (Math.atan2(im, re) * 180) / Math.PI;

  it('is that of a filter which has it, within 2 degrees between the outermost octaves', () => {
    const found = minimumPhasePart({ ...minimum, im: minimum.im.map((v) => -v) });
    LIBRARY_GRID.forEach((f, n) => {
      if (f < 40 || f > 10_000) return;
      const off = degrees(
        found.re[n]! * minimum.re[n]! + found.im[n]! * minimum.im[n]!,
        found.im[n]! * minimum.re[n]! - found.re[n]! * minimum.im[n]!,
      );
      expect(Math.abs(off), `${f} Hz`).toBeLessThan(2);
    });
  });

  it('what is in excess is the delay that was added', () => {
    const late = viewedCurve(minimum, { gainDb: 0, delayS: 0.0005, inverted: false, shapes: [] });
    const excess = excessPhasePart(late);
    LIBRARY_GRID.forEach((f, n) => {
      if (f < 40 || f > 10_000) return;
      expect(Math.hypot(excess.re[n]!, excess.im[n]!)).toBeCloseTo(1, 9);
      const turn = 2 * Math.PI * f * 0.0005;
      const off = degrees(
        excess.re[n]! * Math.cos(turn) - excess.im[n]! * Math.sin(turn),
        excess.re[n]! * Math.sin(turn) + excess.im[n]! * Math.cos(turn),
      );
      expect(Math.abs(off), `${f} Hz`).toBeLessThan(2);
    });
  });
});

describe('what curves do not know', () => {
  it('a curve without a phase can be divided and averaged by power, not added', () => {
    const level = curveOf(() => [2, 0], { hasPhase: false });
    expect(() => sumOfCurves([level, low])).toThrow(/without a phase/);
    expect(() => averageOfCurves([level, low], 'complex')).toThrow(/without a phase/);
    const ratio = ratioOfCurves(
      level,
      curveOf(() => [0, 4]),
    );
    expect(ratio.hasPhase).toBe(false);
    expect(ratio.re[3]).toBeCloseTo(0.5, 12);
    expect(averageOfCurves([level, low], 'power').hasPhase).toBe(false);
  });

  it('curves that end elsewhere meet on the points that both have', () => {
    const short = curveOf(highPass, {}, LIBRARY_GRID.subarray(30, 300));
    const found = sumOfCurves([low, short]);
    expect(found.frequency).toHaveLength(270);
    expectCurve(found, () => [1, 0]);
    const other = curveOf(lowPass, {}, Float64Array.of(30, 31, 33));
    expect(() => sumOfCurves([low, other])).toThrow(/grids/);
    const apart = curveOf(lowPass, {}, LIBRARY_GRID.subarray(0, 10));
    expect(() => sumOfCurves([short, apart])).toThrow(/share no/);
  });

  it('a result is as sure as the least sure of its sources', () => {
    const found = sumOfCurves([
      curveOf(lowPass, { coherence: LIBRARY_GRID.map(() => 0.9) }),
      curveOf(highPass, { coherence: LIBRARY_GRID.map(() => 0.4) }),
    ]);
    expect(found.coherence[7]).toBe(0.4);
  });
});

it('two curves are as alike as they are: level, shape and phase apart', () => {
  const turned = curveOf((f) => {
    const [re, im] = lowPass(f);
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    return [2 * (re * c - im * s), 2 * (re * s + im * c)];
  });
  const found = alikeWithin(turned, low, { from: 60, to: 200 })!;
  expect(found.meanDb).toBeCloseTo(20 * Math.log10(2), 9);
  expect(found.rmsDb).toBeCloseTo(0, 6);
  expect(found.rmsDeg).toBeCloseTo(30, 9);
  expect(alikeWithin(turned, { ...low, hasPhase: false }, { from: 60, to: 200 })!.rmsDeg).toBeNull();
  expect(alikeWithin(turned, low, { from: 21_000, to: 22_000 })).toBeNull();
});

it('a formula takes as many traces as it says', () => {
  const formulas: [Formula, number][] = [
    [{ op: 'sum', of: ['a', 'b'] }, 2],
    [{ op: 'average', of: ['a', 'b'], how: 'power' }, 2],
    [{ op: 'splice', of: ['a', 'b'], atHz: 100, octaves: 1 }, 2],
    [{ op: 'delay removed', of: ['a'], delayS: 0.001 }, 1],
    [{ op: 'all-pass', of: ['a'], hz: 100, q: 1 }, 1],
    [{ op: 'minimum phase', of: ['a'] }, 1],
  ];
  for (const [formula, takes] of formulas) {
    expect(
      evaluateFormula(
        formula,
        Array.from({ length: takes }, () => low),
      ).frequency,
    ).toHaveLength(LIBRARY_GRID.length);
    expect(() => evaluateFormula(formula, [])).toThrow(/takes/);
  }
});

it('a trace behind shapes is what it was times what they do, to 1e-9; its samples stay as they were', () => {
  const shapes = [
    { kind: 'peaking', hz: 500, gainDb: -6, q: 2 },
    { kind: 'all-pass', hz: 2000, order: 2, q: 0.7 },
  ] as const;
  const plain = { gainDb: 0, delayS: 0, inverted: false, shapes: [] };
  const trace = curveOfShapes([{ kind: 'low-pass', hz: 3000, family: 'Bessel', order: 4 }]);
  const before = trace.re.slice();
  const behind = viewedCurve(trace, { ...plain, shapes: [...shapes] });
  const product = productOfCurves([trace, curveOfShapes([...shapes])]);
  behind.re.forEach((v, n) => {
    expect(Math.abs(v - product.re[n]!)).toBeLessThan(1e-9);
    expect(Math.abs(behind.im[n]! - product.im[n]!)).toBeLessThan(1e-9);
  });
  expect(trace.re).toEqual(before);
  // without a phase only levels change
  const bare = {
    ...trace,
    re: trace.re.map((v, n) => Math.hypot(v, trace.im[n]!)),
    im: trace.im.map(() => 0),
    hasPhase: false,
  };
  const seen = viewedCurve(bare, { ...plain, shapes: [...shapes] });
  seen.re.forEach((v, n) => expect(v).toBeCloseTo(Math.hypot(product.re[n]!, product.im[n]!), 9));
});
