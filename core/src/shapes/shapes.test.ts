import { describe, expect, it } from 'vitest';
import { allPass, biquadTrace, dbOfGain, highShelf, logGrid, lowShelf, peaking } from '../signal/index.js';
import { besselPolynomial, octavesOfQ, qOfOctaves, shapeTrace, undershootDb, type Shape } from './index.js';

const levelAt = (shape: Shape, ...hz: number[]) => {
  const { re, im } = shapeTrace([shape], Float64Array.from(hz));
  return Array.from(re, (v, n) => dbOfGain(Math.hypot(v, im[n]!)));
};
const phaseAt = (shape: Shape, hz: number) => {
  const { re, im } = shapeTrace([shape], Float64Array.of(hz));
  return (Math.atan2(im[0]!, re[0]!) * 180) / Math.PI;
};

describe('what the figures of a shape mean', () => {
  it('a peaking section has its gain at its frequency, and half of it half a bandwidth away', () => {
    const octaves = octavesOfQ(2.5);
    const at = (by: number) => 1000 * 2 ** by;
    const [middle, low, high, far] = levelAt(
      { kind: 'peaking', hz: 1000, gainDb: 9, q: 2.5 },
      1000,
      at(-octaves / 2),
      at(octaves / 2),
      1e6,
    ) as [number, number, number, number];
    expect(middle).toBeCloseTo(9, 10);
    expect(low).toBeCloseTo(4.5, 8);
    expect(high).toBeCloseTo(4.5, 8);
    expect(far).toBeCloseTo(0, 4);
  });
  it('an octave between half gains is a quality of √2', () => {
    expect(qOfOctaves(1)).toBeCloseTo(Math.SQRT2, 12);
    expect(octavesOfQ(qOfOctaves(0.37))).toBeCloseTo(0.37, 12);
  });
  it.each([1, 2] as const)('shelves of order %i have half their gain in dB at their frequency', (order) => {
    const q = order === 1 ? null : 0.6;
    for (const gainDb of [-12, 8]) {
      const low = levelAt({ kind: 'low shelf', hz: 200, gainDb, order, q }, 1e-3, 200, 1e7);
      const high = levelAt({ kind: 'high shelf', hz: 200, gainDb, order, q }, 1e-3, 200, 1e7);
      low.forEach((v, i) => expect(v).toBeCloseTo([gainDb, gainDb / 2, 0][i]!, 4));
      high.forEach((v, i) => expect(v).toBeCloseTo([0, gainDb / 2, gainDb][i]!, 4));
    }
  });
  it('a shelf undershoots above the steepest quality, and not below', () => {
    const shelf = (q: number): Shape => ({ kind: 'low shelf', hz: 100, gainDb: -10, order: 2, q });
    expect(undershootDb(shelf(0.6))).toBe(0);
    // at 1.5 it passes 0 dB by about a tenth of its gain and more
    expect(undershootDb(shelf(1.5))).toBeGreaterThan(1);
    expect(undershootDb({ kind: 'low shelf', hz: 100, gainDb: 6, order: 1, q: null })).toBe(0);
  });
  it.each([1, 2, 3, 4, 7, 12])('Butterworth of order %i follows 1 / (1 + x^2n)', (order) => {
    for (const x of [0.3, 1, 2.2]) {
      const expected = -10 * Math.log10(1 + x ** (2 * order));
      expect(levelAt({ kind: 'low-pass', hz: 80, family: 'Butterworth', order }, 80 * x)[0]).toBeCloseTo(
        expected,
        8,
      );
      expect(levelAt({ kind: 'high-pass', hz: 80, family: 'Butterworth', order }, 80 / x)[0]).toBeCloseTo(
        expected,
        8,
      );
    }
  });
  it('Linkwitz-Riley of order 4 and its counterpart add up to a level of 0 dB', () => {
    const at = logGrid(20, 20_000, 12);
    const low = shapeTrace([{ kind: 'low-pass', hz: 900, family: 'Linkwitz-Riley', order: 4 }], at);
    const high = shapeTrace([{ kind: 'high-pass', hz: 900, family: 'Linkwitz-Riley', order: 4 }], at);
    at.forEach((_, n) =>
      expect(Math.hypot(low.re[n]! + high.re[n]!, low.im[n]! + high.im[n]!)).toBeCloseTo(1, 10),
    );
    expect(() => shapeTrace([{ kind: 'low-pass', hz: 900, family: 'Linkwitz-Riley', order: 3 }], at)).toThrow(
      /even order/,
    );
  });
  it('Bessel polynomials are those of the tables', () => {
    expect(besselPolynomial(3)).toEqual([15, 15, 6, 1]);
    expect(besselPolynomial(5)).toEqual([945, 945, 420, 105, 15, 1]);
  });
  it.each([2, 3, 5, 8, 12])(
    'a Bessel low-pass of order %i is its polynomial, -3.01 dB at its corner',
    (order) => {
      const coefficients = besselPolynomial(order);
      // |theta(0) / theta(jw)| where it has fallen to half the power gives the scale
      const levelOf = (w: number) => {
        let [re, im] = [0, 0];
        coefficients.forEach((c, k) => {
          const size = c * w ** k;
          if (k % 4 === 0) re += size;
          else if (k % 4 === 1) im += size;
          else if (k % 4 === 2) re -= size;
          else im -= size;
        });
        return -20 * Math.log10(Math.hypot(re, im) / coefficients[0]!);
      };
      let [a, b] = [0.1, 20];
      for (let i = 0; i < 100; i++) {
        const m = (a + b) / 2;
        if (levelOf(m) > -10 * Math.log10(2)) a = m;
        else b = m;
      }
      for (const x of [0.2, 0.7, 1, 1.9, 4])
        expect(levelAt({ kind: 'low-pass', hz: 500, family: 'Bessel', order }, 500 * x)[0]).toBeCloseTo(
          levelOf(a * x),
          6,
        );
    },
  );
  it('all-passes turn by 90 degrees and 180 degrees at their frequency and change no level', () => {
    expect(phaseAt({ kind: 'all-pass', hz: 300, order: 1, q: null }, 300)).toBeCloseTo(-90, 10);
    const second: Shape = { kind: 'all-pass', hz: 300, order: 2, q: 1.3 };
    expect(Math.abs(phaseAt(second, 300))).toBeCloseTo(180, 8);
    levelAt(second, 20, 290, 5000).forEach((v) => expect(v).toBeCloseTo(0, 10));
  });
  it('made at a rate they are the sections of a processor at that rate', () => {
    const at = logGrid(20, 20_000, 6);
    const pairs: [Shape, Parameters<typeof biquadTrace>[0][0]][] = [
      [{ kind: 'peaking', hz: 6000, gainDb: -7, q: 1.8 }, peaking(6000, -7, 1.8, 48_000)],
      [{ kind: 'low shelf', hz: 150, gainDb: 5, order: 2, q: 0.7 }, lowShelf(150, 5, 0.7, 48_000)],
      [{ kind: 'high shelf', hz: 9000, gainDb: 5, order: 2, q: 0.9 }, highShelf(9000, 5, 0.9, 48_000)],
      [{ kind: 'all-pass', hz: 2000, order: 2, q: 2 }, allPass(2000, 2, 48_000)],
    ];
    for (const [shape, section] of pairs) {
      const [made, known] = [shapeTrace([shape], at, 48_000), biquadTrace([section], at, 48_000)];
      at.forEach((_, n) => {
        expect(made.re[n]).toBeCloseTo(known.re[n]!, 9);
        expect(made.im[n]).toBeCloseTo(known.im[n]!, 9);
      });
    }
  });
  it('refuses what means nothing', () => {
    const at = Float64Array.of(100);
    const broken: Shape[] = [
      { kind: 'peaking', hz: NaN, gainDb: 3, q: 1 },
      { kind: 'peaking', hz: 100, gainDb: Infinity, q: 1 },
      { kind: 'peaking', hz: 100, gainDb: 3, q: 0 },
      { kind: 'low shelf', hz: 100, gainDb: 3, order: 2, q: null },
      { kind: 'low-pass', hz: 100, family: 'Butterworth', order: 13 },
    ];
    for (const shape of broken) expect(() => shapeTrace([shape], at)).toThrow(RangeError);
    expect(() => shapeTrace([{ kind: 'peaking', hz: 30_000, gainDb: 3, q: 1 }], at, 48_000)).toThrow(
      RangeError,
    );
  });
});
