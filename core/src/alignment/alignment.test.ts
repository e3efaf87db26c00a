import { plainSub } from '../processing/index.js';
import { describe, expect, it } from 'vitest';
import { signalPath, sumPaths, type CrossoverFilter } from '../path/index.js';
import { constantTrace, logGrid, seededRandom, type ComplexTrace } from '../signal/index.js';
import {
  alignCrossover,
  highPassed,
  levelApart,
  levelsAndDelays,
  lowPassed,
  randomSettings,
  seatDeviation,
  STARTING_SUB_LIMITS,
  subsTogether,
  summationOf,
  sumOfSubs,
} from './index.js';

const rate = 48000;
const frequency = logGrid(20, 80, 12);

describe('levelsAndDelays', () => {
  const channels = [
    { id: 'l', role: 'full range' as const, levelDb: -20, arrivalS: 0.008, latencyS: 0 },
    { id: 'r', role: 'full range' as const, levelDb: -23, arrivalS: 0.0112, latencyS: 0 },
    { id: 's', role: 'subwoofer' as const, levelDb: -26, arrivalS: 0.0061, latencyS: 0.009 },
  ];
  it('brings all to the quietest full-range channel, and lets all wait for the latest', () => {
    const [l, r, s] = levelsAndDelays(channels);
    expect([l!.trimDb, r!.trimDb, s!.trimDb]).toEqual([-3, 0, 3]);
    expect(l!.delayS).toBeCloseTo(0.0151 - 0.008, 12); // the subwoofer's filter makes it the last
    expect(r!.delayS).toBeCloseTo(0.0151 - 0.0112, 12);
    expect(s).toMatchObject({ delayS: 0, quietestId: 'r', latestId: 's' });
  });
  it('raises a weak subwoofer by 12 dB at the most, and delays nothing whose arrival is not known', () => {
    const [, , s] = levelsAndDelays(
      channels.map((c) => (c.id === 's' ? { ...c, levelDb: -50, arrivalS: null } : c)),
    );
    expect(s).toMatchObject({ trimDb: 12, delayS: 0 });
    expect(() => levelsAndDelays([])).toThrow(/no channels/);
  });
});

/** Subwoofers in a made-up field: direct sound and a few modes whose shape depends on where one sits. */
function field(seed: number, subs: number, spots: number): ComplexTrace[][] {
  const random = seededRandom(seed);
  const modes = Array.from({ length: 6 }, () => ({
    f: 22 + 60 * random.uniform(),
    q: 6 + 10 * random.uniform(),
  }));
  const shape = (count: number) => Array.from({ length: count }, () => modes.map(() => random.normal()));
  const [sources, seats] = [shape(subs), shape(spots)];
  const way = Array.from({ length: subs }, () =>
    Array.from({ length: spots }, () => 0.004 + 0.008 * random.uniform()),
  );
  return sources.map((source, i) =>
    seats.map((seat, j) => {
      const [re, im] = [new Float64Array(frequency.length), new Float64Array(frequency.length)];
      frequency.forEach((f, k) => {
        const turn = -2 * Math.PI * f * way[i]![j]!;
        let [a, b] = [0.6 * Math.cos(turn), 0.6 * Math.sin(turn)];
        modes.forEach((m, n) => {
          // resonance f^2 / (f0^2 - f^2 + j f f0 / q)
          const [dr, di] = [m.f * m.f - f * f, (f * m.f) / m.q];
          const d = dr * dr + di * di;
          const g = (0.25 * source[n]! * seat[n]! * f * f) / d;
          a += g * dr;
          b -= g * di;
        });
        [re[k], im[k]] = [a, b];
      });
      return { frequency, re, im };
    }),
  );
}

describe('subsTogether', () => {
  it.each([1, 2, 3])(
    'room %i: seats get alike by a third or so, or as much as a long random search finds',
    { tags: 'bars' },
    (seed) => {
      const responses = { rate, at: field(seed, 2, 8) };
      const found = subsTogether(responses);
      expect(found.deviationDb.before).toBeCloseTo(
        seatDeviation(sumOfSubs(responses, [plainSub(), plainSub()])).deviationDb,
        9,
      );
      expect(found.deviationDb.after).toBeCloseTo(
        seatDeviation(sumOfSubs(responses, found.settings)).deviationDb,
        9,
      );
      const random = seededRandom(99);
      let best = Infinity;
      for (let i = 0; i < 6000; i++) {
        const { deviationDb } = seatDeviation(
          sumOfSubs(responses, randomSettings(random, 2, frequency, STARTING_SUB_LIMITS)),
        );
        best = Math.min(best, deviationDb);
      }
      const falls = 1 - found.deviationDb.after / found.deviationDb.before;
      expect(falls >= 0.3 || found.deviationDb.after <= 1.05 * best).toBe(true);
      expect(found.levelDb).toBeGreaterThan(-6);
      for (const s of found.settings) {
        expect(s.delayS).toBeGreaterThanOrEqual(0);
        expect(s.gainDb).toBeGreaterThanOrEqual(-STARTING_SUB_LIMITS.mostCutDb - 0.05);
        for (const x of s.sections) expect(x.gainDb).toBeLessThanOrEqual(STARTING_SUB_LIMITS.maxBoostDb);
      }
    },
  );

  it('gives the same for the same seed, and refuses a single subwoofer or seat', () => {
    const responses = { rate, at: field(4, 2, 3) };
    const limits = { ...STARTING_SUB_LIMITS, sections: 0 };
    expect(subsTogether(responses, limits, 5)).toEqual(subsTogether(responses, limits, 5));
    expect(() => subsTogether({ rate, at: field(4, 1, 3) })).toThrow(/two subwoofers/);
    expect(() => subsTogether({ rate, at: field(4, 2, 1) })).toThrow(/two spots/);
  });
});

describe('a crossover between a channel and the subwoofers', () => {
  const band = logGrid(30, 300, 24);
  const flat = (value = 1): ComplexTrace => constantTrace(band, value);
  const later = (delayS: number, inverted = false) =>
    sumPaths([{ response: flat(), path: signalPath(rate, { delayS, inverted }) }]);
  const crossover: CrossoverFilter = { kind: 'Linkwitz-Riley', order: 4, frequency: 90 };
  const plain = { lowPass: crossover, subDelayS: 0, subInverted: false };

  it('of a fourth-order Linkwitz-Riley pair adds up to 100 %, inverted to much less', () => {
    const high = highPassed([flat()], { highPass: crossover }, rate);
    const good = summationOf(high, lowPassed([flat()], plain, rate));
    expect(good.efficiency).toBeCloseTo(1, 6);
    expect(good.band!.from).toBeLessThan(90);
    expect(good.band!.to).toBeGreaterThan(90);
    const inverted = lowPassed([flat()], { ...plain, subInverted: true }, rate);
    expect(summationOf(high, inverted).efficiency).toBeLessThan(0.4);
    expect(summationOf(high, [flat(1e-6)])).toEqual({ efficiency: null, band: null });
  });

  it('gets back the delay and the polarity that were taken away, over several spots', () => {
    const main = [0, 0.001, -0.0005].map((d) => later(0.01 + d));
    // the subwoofers come 3.4 ms earlier and inverted
    const subs = [0, 0.001, -0.0005].map((d) => later(0.0066 + d, true));
    const found = alignCrossover(main, subs, [{ highPass: crossover, lowPass: crossover }], rate);
    expect(found.subDelayS).toBeCloseTo(0.0034, 4);
    expect(found.subInverted).toBe(true);
    expect(found.efficiency).toBeCloseTo(1, 3);
  });

  it('is chosen of several by what adds up', () => {
    const second = { ...crossover, order: 2 };
    // a second-order Linkwitz-Riley pair needs one side inverted; both offers reach 100 %, the plain one is kept
    const offered = [crossover, second].map((c) => ({ highPass: c, lowPass: c }));
    const found = alignCrossover([flat()], [flat()], offered, rate);
    expect(found.efficiency).toBeCloseTo(1, 4);
    expect(found.subDelayS).toBe(0);
    expect(() => alignCrossover([flat()], [flat()], [], rate)).toThrow(/no crossover/);
  });

  it('says so where the two share no band, and moves nothing', () => {
    const none = { highPass: null, lowPass: null };
    expect(alignCrossover([flat()], [flat(1e-6)], [none], rate)).toEqual({
      ...none,
      subDelayS: 0,
      subInverted: false,
      efficiency: null,
      atEdge: false,
    });
  });

  it('is looked for as far as it is asked to, and says where the best lies at the edge', () => {
    const offered = [{ highPass: crossover, lowPass: crossover }];
    const subs = [later(0.016)];
    // what comes 16 ms late is found by delaying the channel, and not inverted at some other cycle
    const far = alignCrossover([flat()], subs, offered, rate);
    expect(far.subDelayS).toBeCloseTo(-0.016, 5);
    expect(far).toMatchObject({ subInverted: false, atEdge: false });
    expect(far.efficiency).toBeCloseTo(1, 4);
    expect(alignCrossover([flat()], [later(0.0052)], offered, rate, 0.005).atEdge).toBe(true);
    for (const range of [0, -1, NaN, Infinity])
      expect(() => alignCrossover([flat()], subs, offered, rate, range)).toThrow(/0 to 10 s/);
  });

  it('takes the place of another: magnitudes of both, from their closed form', () => {
    const levelDb = (fc: number) => (f: number) => -20 * Math.log10(1 + (f / fc) ** 4);
    const low = (frequency: number) =>
      lowPassed([flat()], { ...plain, lowPass: { ...crossover, frequency } }, rate)[0]!;
    band.forEach((f, k) => {
      const { re, im } = low(80);
      expect(20 * Math.log10(Math.hypot(re[k]!, im[k]!))).toBeCloseTo(levelDb(80)(f), 2);
    });
  });
});

it('tells how far apart two sets of traces are, by power', () => {
  const band = logGrid(30, 300, 12);
  const flat = (v: number) => constantTrace(band, v);
  expect(levelApart([flat(10 ** 0.5)], [flat(1)], { from: 30, to: 80 })).toBeCloseTo(10, 9);
  // 1 and 3 have a power of 5 on the mean
  expect(levelApart([flat(1), flat(3)], [flat(1)], { from: 30, to: 80 })).toBeCloseTo(10 * Math.log10(5), 9);
});
