import { describe, expect, it } from 'vitest';
import { logGrid, type ComplexTrace } from '../signal/index.js';
import {
  asSet,
  gainOntoTarget,
  provenSum,
  readMeeting,
  readPair,
  suggestAlignments,
  together,
  type SourceSetting,
} from './index.js';

const grid = logGrid(20, 20_000, 48);
const plain: SourceSetting = {
  gainDb: 0,
  delayS: 0,
  inverted: false,
  allPasses: [],
  highPass: null,
  lowPass: null,
};

/** A transfer function from its formula, with s = i f / hz. */
const traceOf = (formula: (f: number) => [number, number], frequency = grid): ComplexTrace => {
  const values = [...frequency].map(formula);
  return {
    frequency,
    re: Float64Array.from(values, (v) => v[0]),
    im: Float64Array.from(values, (v) => v[1]),
  };
};
/** 1 / (s^2 + sqrt(2) s + 1)^2, of which the high-pass is s^4 as much: Linkwitz and Riley's fourth order. */
const linkwitzRiley = (hz: number, isHigh: boolean) =>
  traceOf((f) => {
    const x = f / hz;
    const [a, b] = [1 - x * x, Math.SQRT2 * x];
    const [c, d] = [a * a - b * b, 2 * a * b];
    const scale = (isHigh ? x ** 4 : 1) / (c * c + d * d);
    return [c * scale, -d * scale];
  });
const flat = grid.map(() => 0);

describe('a source as it is set', () => {
  it('is turned by delay, polarity and all-pass, and nothing but its gain changes its level', () => {
    const one = traceOf(() => [1, 0]);
    const set = asSet(one, {
      ...plain,
      gainDb: 6.0206,
      delayS: 0.002,
      inverted: true,
      allPasses: [{ hz: 100, q: null }],
    });
    grid.forEach((f, n) => {
      const turn = Math.PI - 2 * Math.PI * f * 0.002 - 2 * Math.atan(f / 100);
      expect(set.re[n]).toBeCloseTo(2 * Math.cos(turn), 4);
      expect(set.im[n]).toBeCloseTo(2 * Math.sin(turn), 4);
    });
  });
  it('behind crossovers it is what those are: two of Linkwitz and Riley add up to all there is', () => {
    const one = traceOf(() => [1, 0]);
    const pass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 100 };
    const [high, low] = [asSet(one, { ...plain, highPass: pass }), asSet(one, { ...plain, lowPass: pass })];
    const [wantHigh, wantLow] = [linkwitzRiley(100, true), linkwitzRiley(100, false)];
    const sum = together([high, low]);
    grid.forEach((f, n) => {
      // made as a processor makes them, whose rate shows in the highest octaves
      if (f > 5000) return;
      expect(Math.hypot(high.re[n]! - wantHigh.re[n]!, high.im[n]! - wantHigh.im[n]!)).toBeLessThan(0.01);
      expect(Math.hypot(low.re[n]! - wantLow.re[n]!, low.im[n]! - wantLow.im[n]!)).toBeLessThan(0.01);
      expect(Math.hypot(sum.re[n]!, sum.im[n]!)).toBeCloseTo(1, 6);
    });
  });
  it('adds up with others as complex numbers', () => {
    const sum = together([traceOf(() => [1, 2]), traceOf(() => [3, -1]), traceOf(() => [0, 0.5])]);
    expect([sum.re[7], sum.im[7]]).toEqual([4, 1.5]);
    expect(() => together([])).toThrow(/no source/);
    expect(() => together([sum, traceOf(() => [1, 0], logGrid(20, 100, 3))])).toThrow(/frequencies/);
  });
});

describe('levels against a target', () => {
  it('a source is laid on it by its own band alone', () => {
    const low = asSet(linkwitzRiley(100, false), { ...plain, gainDb: -7 });
    // the target is 3 dB up where the source plays, and anything elsewhere
    const target = grid.map((f) => (f < 200 ? 3 : -20));
    const gain = gainOntoTarget(low, target)!;
    // 10 dB down at 121 Hz, so that the middle of its band is at 49 Hz, where it is 20 log (1 + 0.49^4) down
    expect(gain).toBeCloseTo(10 + 20 * Math.log10(1 + 0.49 ** 4), 0);
    const even = traceOf(() => [0.5, 0]);
    // half is 6.02 dB down
    expect(
      gainOntoTarget(
        even,
        grid.map(() => 3),
      ),
    ).toBeCloseTo(9.0206, 3);
    expect(
      gainOntoTarget(
        even,
        grid.map(() => NaN),
      ),
    ).toBeNull();
  });
  it('Linkwitz and Riley meet on it: in phase their sum is flat', () => {
    const met = readMeeting(linkwitzRiley(90, false), linkwitzRiley(90, true), flat)!;
    expect(met.hz).toBeCloseTo(90, 0);
    expect(met.lowest.db).toBeCloseTo(0, 6);
    expect(met.highest.db).toBeCloseTo(0, 6);
  });
  it('corners an octave apart leave a gap of 20 log 0.4 between them', () => {
    const met = readMeeting(linkwitzRiley(60, false), linkwitzRiley(120, true), flat)!;
    // both are 1 / (1 + 2^2) there
    expect(met.hz).toBeCloseTo(60 * Math.SQRT2, 0);
    expect(met.lowest.db).toBeCloseTo(20 * Math.log10(0.4), 2);
    expect(met.lowest.hz).toBeCloseTo(60 * Math.SQRT2, -0.5);
  });
  it('corners that overlap by an octave stand out by 20 log 1.6', () => {
    const met = readMeeting(linkwitzRiley(120, false), linkwitzRiley(60, true), flat)!;
    // both are 1 / (1 + 2^-2) there
    expect(met.highest.db).toBeCloseTo(20 * Math.log10(1.6), 2);
  });
  it('two that nowhere give way to each other do not meet', () => {
    expect(
      readMeeting(
        traceOf(() => [1, 0]),
        traceOf(() => [2, 0]),
        flat,
      ),
    ).toBeNull();
  });
});

it('what two subwoofers do far above their band, where both are noise, is no part of the reading', () => {
  let seed = 1;
  const random = () => (seed = (16807 * seed) % 2147483647) / 2147483647;
  const sub = () =>
    traceOf((f) => {
      if (f >= 30 && f <= 120) return [1, 0];
      const angle = 2 * Math.PI * random();
      return [0.003 * Math.cos(angle), 0.003 * Math.sin(angle)];
    });
  const reading = readPair(sub(), sub());
  if (!('band' in reading)) throw new Error('no band');
  expect(reading.band.from).toBeGreaterThan(28);
  expect(reading.band.to).toBeLessThan(130);
  expect(reading.meanEfficiency).toBeGreaterThan(0.95);
});

describe('what is suggested', () => {
  const main = linkwitzRiley(90, true);
  // the subwoofer comes 4 ms early, the wrong way round
  const sub = asSet(linkwitzRiley(90, false), { ...plain, delayS: -0.004, inverted: true });
  const request = {
    points: [{ reference: main, moved: sub, weight: 1 }],
    mostDelayS: 0.03,
    mostAllPasses: 1,
    aim: 'mean' as const,
    speedOfSound: 343,
  };
  const found = suggestAlignments(request);
  it('begins with what makes it whole: 4 ms, inverted, nothing else', () => {
    const [best] = found;
    expect(best!.delayS).toBeCloseTo(0.004, 5);
    expect(best!.inverted).toBe(true);
    expect(best!.allPasses).toEqual([]);
    expect(best!.efficiency).toBeCloseTo(1, 4);
  });
  it('tells how sharp it is as the same reading with half a metre more', () => {
    const [best] = found;
    const moved = asSet(sub, { ...plain, delayS: best!.delayS + 0.5 / 343, inverted: true });
    const reading = readPair(main, moved);
    if (!('meanEfficiency' in reading)) throw new Error('no band');
    const lost = 20 * Math.log10(best!.efficiency / reading.meanEfficiency);
    expect(best!.halfMetreDb).toBeCloseTo(lost, 2);
    expect(best!.halfMetreDb).toBeGreaterThan(0.1);
    // 5 K change a delay of 4 ms by 34 microseconds
    expect(best!.warmerDb).toBeLessThan(0.01);
  });
  it('offers nothing twice, and gives little away for a shorter delay', () => {
    const names = found.map((s) => `${s.delayS.toFixed(5)} ${s.inverted} ${s.allPasses.length}`);
    expect(new Set(names).size).toBe(names.length);
    const best = found[0]!.efficiency;
    for (const s of found.filter((x) => x.for === 'least delay'))
      expect(20 * Math.log10(best / s.efficiency)).toBeLessThanOrEqual(0.5);
  });
  it('says nothing of two that share nothing', () => {
    const quiet = asSet(sub, { ...plain, gainDb: -100 });
    expect(suggestAlignments({ ...request, points: [{ reference: main, moved: quiet, weight: 1 }] })).toEqual(
      [],
    );
  });
});

describe('a measured sum', () => {
  const main = linkwitzRiley(90, true);
  const sub = linkwitzRiley(90, false);
  const reading = readPair(main, sub);
  if (!('weight' in reading)) throw new Error('no band');
  const predicted = together([main, sub]);
  it('that is 1 dB louder and 3 ms later everywhere is 1 dB from what was predicted', () => {
    const found = provenSum(predicted, asSet(predicted, { ...plain, gainDb: 1, delayS: 0.003 }), reading)!;
    expect(found.meanDb).toBeCloseTo(1, 6);
    expect(found.rmsDb).toBeCloseTo(1, 6);
    expect(found.judged).toBe(1);
  });
  it('with the subwoofer the wrong way round is a hole where both are equal', () => {
    const found = provenSum(predicted, together([main, asSet(sub, { ...plain, inverted: true })]), reading)!;
    expect(found.worst.hz).toBeGreaterThan(86);
    expect(found.worst.hz).toBeLessThan(94);
    expect(found.worst.db).toBeLessThan(-20);
    expect(found.rmsDb).toBeGreaterThan(3);
  });
  it('that nearly cancels is not judged by what is left in its hole', () => {
    const against = together([main, asSet(sub, { ...plain, inverted: true })]);
    const louder = together([main, asSet(sub, { ...plain, inverted: true, gainDb: 0.2 })]);
    const hole = readPair(main, asSet(sub, { ...plain, inverted: true }));
    if (!('weight' in hole)) throw new Error('no band');
    expect(provenSum(against, louder, hole)!.rmsDb).toBeLessThan(0.5);
    // nothing was predicted, and what was measured is plainly there
    expect(provenSum(against, together([main, sub]), hole)!.rmsDb).toBeGreaterThan(6);
  });
  it('is judged where it is coherent and known, and nowhere else', () => {
    const coherence = grid.map((f) => (f > 90 ? 0.2 : 1));
    const half = provenSum(predicted, { ...predicted, coherence }, reading)!;
    expect(half.judged).toBeGreaterThan(0.4);
    expect(half.judged).toBeLessThan(0.6);
    expect(provenSum(predicted, { ...predicted, coherence: grid.map(() => 0) }, reading)).toBeNull();
    const unknown = grid.map(() => NaN);
    expect(provenSum(predicted, { frequency: grid, re: unknown, im: unknown }, reading)).toBeNull();
  });
});
