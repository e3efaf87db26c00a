import { describe, expect, it } from 'vitest';
import { capGain, pistonGain, radiatorGain } from './radiators.js';

/** J1 by its power series (Abramowitz and Stegun 9.1.10), good to rounding for what is asked here. */
const j1 = (x: number) => {
  let term = x / 2;
  let sum = term;
  for (let m = 1; m < 80; m++) {
    term *= -((x / 2) ** 2) / (m * (m + 1));
    sum += term;
  }
  return sum;
};
const size = ({ re, im }: { re: number; im: number }) => Math.hypot(re, im);

const times = (a: C, b: C): C => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re });
const over = (a: C, b: C): C => {
  const p = b.re ** 2 + b.im ** 2;
  return { re: (a.re * b.re + a.im * b.im) / p, im: (a.im * b.re - a.re * b.im) / p };
};
const plus = (a: C, b: C): C => ({ re: a.re + b.re, im: a.im + b.im });
interface C {
  re: number;
  im: number;
}
const J: C = { re: 0, im: 1 };
const power = (z: C, n: number): C =>
  Array.from({ length: n }).reduce<C>((p) => times(p, z), { re: 1, im: 0 });

/** h_n of the second kind as a finite sum (Abramowitz and Stegun 10.1.17). */
function hankel(n: number, x: number): C {
  let sum: C = { re: 0, im: 0 };
  let term = 1;
  for (let m = 0; m <= n; m++) {
    // (n + m)! / (m! (n - m)! (2x)^m), times (-j)^m
    if (m > 0) term *= ((n + m) * (n - m + 1)) / (m * 2 * x);
    sum = plus(sum, times({ re: term, im: 0 }, power({ re: 0, im: -1 }, m)));
  }
  return times(times(power(J, n + 1), { re: Math.cos(x) / x, im: -Math.sin(x) / x }), sum);
}

/** The field of a cap far away in a direction, against that on its axis, as heard from its pole. */
function seriesRatio(x: number, cap: number, angle: number): C {
  const polynomials = (c: number): number[] => {
    const p = [1, c];
    for (let n = 2; n <= 45; n++) p.push(((2 * n - 1) * c * p[n - 1]! - (n - 1) * p[n - 2]!) / n);
    return p;
  };
  const edge = polynomials(Math.cos(cap));
  const field = (cosine: number): C => {
    const here = polynomials(cosine);
    let sum: C = { re: 0, im: 0 };
    for (let n = 0; n <= Math.min(40, Math.ceil(x) + 20); n++) {
      const velocity = (n === 0 ? 1 : edge[n - 1]!) - edge[n + 1]!;
      const slope =
        n === 0
          ? times({ re: -1, im: 0 }, hankel(1, x))
          : plus(hankel(n - 1, x), times({ re: -(n + 1) / x, im: 0 }, hankel(n, x)));
      sum = plus(sum, over(times({ re: velocity * here[n]!, im: 0 }, power(J, n + 1)), slope));
    }
    return sum;
  };
  const turn = x * (1 - Math.cos(angle));
  return times(over(field(Math.cos(angle)), field(1)), { re: Math.cos(turn), im: Math.sin(turn) });
}

describe('piston in a baffle', () => {
  it.each([0.3, 1, 3, 7, 20])('follows its Bessel form at ka = %d', (ka) => {
    for (const deg of [0, 10, 33, 60, 90]) {
      const x = ka * Math.sin((deg * Math.PI) / 180);
      expect(Math.abs(pistonGain(ka, (deg * Math.PI) / 180) - (x === 0 ? 1 : (2 * j1(x)) / x))).toBeLessThan(
        1e-6,
      );
    }
  });

  it('is 6 dB down where ka sin is 2.2, and silent where it is 3.83', () => {
    expect(20 * Math.log10(pistonGain(10, Math.asin(0.22152)))).toBeCloseTo(-6, 1);
    expect(Math.abs(pistonGain(10, Math.asin(0.38317)))).toBeLessThan(1e-4);
  });
});

describe('cap on a sphere', () => {
  it('radiates alike everywhere when it is small against the wave', () => {
    const gain = capGain(0.01, 0.5);
    for (const angle of [0, 1, 2, Math.PI]) expect(size(gain(angle))).toBeCloseTo(1, 2);
  });

  it('is a sphere that breathes when it spans all of it: alike at every frequency, delayed by the way round its middle', () => {
    const gain = capGain(5, Math.PI);
    for (const angle of [0, 0.7, 1.6, Math.PI]) {
      const g = gain(angle);
      expect(size(g)).toBeCloseTo(1, 9);
      const turn = 5 * (1 - Math.cos(angle));
      expect(g.re).toBeCloseTo(Math.cos(turn), 9);
      expect(g.im).toBeCloseTo(Math.sin(turn), 9);
    }
  });

  it('has the first two terms of its series where kr is small', () => {
    // p ~ U0 j/h0' + U1 j^2/h1' cos: with h0' ~ -j/x^2 .. the ratio of dipole to monopole is -j (3/2) cos (x/2) (1 + cos cap)
    const [x, cap] = [0.02, 0.4];
    const gain = capGain(x, cap);
    const u = 0.75 * x * (1 + Math.cos(cap));
    const front = { re: 1, im: u };
    const back = { re: 1, im: -u };
    const ratio = size(back) / size(front);
    expect(size(gain(Math.PI))).toBeCloseTo(ratio, 4);
    // the phase from front to back, less what the pole lies nearer
    const phase = Math.atan2(gain(Math.PI).im, gain(Math.PI).re);
    expect(phase).toBeCloseTo(2 * x - 2 * Math.atan(u), 4);
  });

  it.each([
    [1, 0.8],
    [4, 0.5],
    [12, 0.3],
  ])('is the sum of its series, by finite sums for its waves, at kr = %d', (x, cap) => {
    const gain = capGain(x, cap);
    for (const angle of [0.3, 1, 1.9, 2.6, Math.PI]) {
      const want = seriesRatio(x, cap, angle);
      const got = gain(angle);
      expect(Math.hypot(got.re - want.re, got.im - want.im)).toBeLessThan(1e-6);
    }
  });

  it('leaves little behind it but the bright spot, when it is large', () => {
    const gain = capGain(12, 0.5);
    expect(20 * Math.log10(size(gain(2.6)))).toBeLessThan(-20);
    expect(size(gain(Math.PI))).toBeGreaterThan(size(gain(2.9)));
  });

  it('comes near to a piston in a baffle ahead of it, when the sphere is large', () => {
    const [k, a, sphere] = [40, 0.1, 1.5];
    const gain = capGain(k * sphere, Math.asin(a / sphere));
    for (const deg of [0, 10, 20])
      expect(size(gain((deg * Math.PI) / 180))).toBeCloseTo(
        Math.abs(pistonGain(k * a, (deg * Math.PI) / 180)),
        1,
      );
  });
});

it('an opening is silent where its height fits whole waves, and alike to left and right', () => {
  const gain = radiatorGain({ kind: 'opening', widthM: 0.05, heightM: 0.3, sphereM: 0.2 }, 2 * Math.PI * 20);
  // k h / 2 sin = pi at sin = 1 / 6
  expect(size(gain(Math.asin(1 / 6), Math.PI / 2))).toBeLessThan(1e-9);
  expect(gain(0.4, 0.3)).toEqual(gain(0.4, -0.3));
});
