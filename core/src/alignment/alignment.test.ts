import { describe, expect, it } from 'vitest';
import { logGrid, seededRandom } from '../signal/index.js';
import {
  bestJoint,
  complexOnGrid,
  fedCurve,
  crossoverBiquads,
  filteredCurve,
  jointOf,
  levelApart,
  levelsAndDelays,
  plainSub,
  plusCurve,
  randomSettings,
  seatDeviation,
  sideCurve,
  STARTING_SUB_LIMITS,
  subsTogether,
  sumOfSubs,
  type ComplexCurve,
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
function field(seed: number, subs: number, spots: number): ComplexCurve[][] {
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
      return { re, im };
    }),
  );
}

describe('subsTogether', () => {
  it.each([1, 2, 3])(
    'room %i: seats get alike by a third or so, or as much as a long random search finds',
    (seed) => {
      const responses = { frequency, rate, at: field(seed, 2, 8) };
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
    const responses = { frequency, rate, at: field(4, 2, 3) };
    const limits = { ...STARTING_SUB_LIMITS, sections: 0 };
    expect(subsTogether(responses, limits, 5)).toEqual(subsTogether(responses, limits, 5));
    expect(() => subsTogether({ frequency, rate, at: field(4, 1, 3) })).toThrow(/two subwoofers/);
    expect(() => subsTogether({ frequency, rate, at: field(4, 2, 1) })).toThrow(/two spots/);
  });
});

describe('joint', () => {
  const band = logGrid(30, 300, 24);
  const flat = (): ComplexCurve => ({ re: band.map(() => 1), im: band.map(() => 0) });
  const crossover = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 90 };

  it('a fourth-order Linkwitz-Riley pair adds up to 100 %, turned round to much less', () => {
    const high = filteredCurve(flat(), band, crossoverBiquads('highpass', crossover, rate), rate);
    const low = filteredCurve(flat(), band, crossoverBiquads('lowpass', crossover, rate), rate);
    const good = jointOf([high], [low], band);
    expect(good.efficiency).toBeCloseTo(1, 6);
    expect(good.band!.from).toBeLessThan(90);
    expect(good.band!.to).toBeGreaterThan(90);
    const turned = filteredCurve(low, band, [], rate, 0, -1);
    expect(jointOf([high], [turned], band).efficiency).toBeLessThan(0.4);
    expect(
      jointOf([high], [{ re: band.map(() => 1e-6), im: band.map(() => 0) }], band).efficiency,
    ).toBeNull();
  });

  it('finds the delay and the polarity that were taken away, over several spots', () => {
    const main = [0, 0.001, -0.0005].map((d) => filteredCurve(flat(), band, [], rate, 0.01 + d));
    // the subwoofers come 3.4 ms earlier and the other way round
    const subs = [0, 0.001, -0.0005].map((d) => filteredCurve(flat(), band, [], rate, 0.0066 + d, -1));
    const found = bestJoint(main, subs, band, [{ highPass: crossover, lowPass: crossover }], rate);
    expect(found.subDelayS).toBeCloseTo(0.0034, 4);
    expect(found.subInverted).toBe(true);
    expect(found.efficiency).toBeCloseTo(1, 3);
  });

  it('chooses of several crossovers the one that adds up', () => {
    const second = { ...crossover, order: 2 };
    // a second-order Linkwitz-Riley pair needs one side turned round; both offers reach 100 %, the plain one is kept
    const found = bestJoint(
      [flat()],
      [flat()],
      band,
      [
        { highPass: crossover, lowPass: crossover },
        { highPass: second, lowPass: second },
      ],
      rate,
    );
    expect(found.efficiency).toBeCloseTo(1, 4);
    expect(found.subDelayS).toBe(0);
  });
});

it('reads a delayed impulse as a turning phase', () => {
  const samples = new Float64Array(4096);
  samples[580] = 0.5;
  const { re, im } = complexOnGrid({ samples, rate, zero: 100 }, Float64Array.of(50, 100, 1000));
  [50, 100, 1000].forEach((f, i) => {
    expect(re[i]).toBeCloseTo(0.5 * Math.cos(-2 * Math.PI * f * 0.01), 4);
    expect(im[i]).toBeCloseTo(0.5 * Math.sin(-2 * Math.PI * f * 0.01), 4);
  });
});

describe('a side of a joint', () => {
  const band = logGrid(30, 300, 12);
  const crossover = (frequency: number) => ({ kind: 'Linkwitz-Riley' as const, order: 4, frequency });
  const side = {
    fir: null,
    sections: [],
    gainDb: 0,
    delayS: 0,
    inverted: false,
    before: null,
    after: null,
  };
  const levelAt = ({ re, im }: ComplexCurve, k: number) => 20 * Math.log10(Math.hypot(re[k]!, im[k]!));

  it('puts one crossover in place of another: magnitudes of both, from their closed form', () => {
    const lowPassed = (fc: number) => (f: number) => -20 * Math.log10(1 + (f / fc) ** 4);
    const curve = sideCurve({ ...side, before: crossover(200), after: crossover(80) }, 'lowpass', band, rate);
    band.forEach((f, k) => {
      if (lowPassed(200)(f) < -25) return; // beyond it nothing is given back
      expect(levelAt(curve, k)).toBeCloseTo(lowPassed(80)(f) - lowPassed(200)(f), 2);
    });
  });

  it('gives back no more than 30 dB of what an old crossover took', () => {
    const curve = sideCurve({ ...side, before: crossover(40) }, 'lowpass', band, rate);
    band.forEach((_, k) => expect(levelAt(curve, k)).toBeLessThanOrEqual(30.01));
  });

  it('turns, delays and lowers as it says, the taps of its FIR too', () => {
    const taps = new Float32Array(480);
    taps[96] = 0.5; // 2 ms later, 6.02 dB down
    const curve = sideCurve(
      { ...side, fir: taps, gainDb: -3, delayS: 0.003, inverted: true },
      'highpass',
      band,
      rate,
    );
    band.forEach((f, k) => {
      const gain = -0.5 * 10 ** (-3 / 20);
      const turn = -2 * Math.PI * f * 0.005;
      expect(curve.re[k]).toBeCloseTo(gain * Math.cos(turn), 3);
      expect(curve.im[k]).toBeCloseTo(gain * Math.sin(turn), 3);
    });
  });

  it('tells how far apart two sets of curves are, by power', () => {
    const flat = (v: number): ComplexCurve => ({ re: band.map(() => v), im: band.map(() => 0) });
    const fed = fedCurve(flat(1), band, { gainDb: 10, lowPass: null }, rate);
    expect(levelApart([fed], [flat(1)], band, { from: 30, to: 80 })).toBeCloseTo(10, 9);
    // 1 and 3 have a power of 5 on the mean
    expect(levelApart([flat(1), flat(3)], [flat(1)], band, { from: 30, to: 80 })).toBeCloseTo(
      10 * Math.log10(5),
      9,
    );
    expect(plusCurve(flat(1), flat(-1)).re.every((v) => v === 0)).toBe(true);
  });
});
