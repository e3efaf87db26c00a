import { needWithin } from '../limits/index.js';

/**
 * A part of a loudspeaker that radiates, turned to the front, as physics books describe it:
 * a circular piston in an endless baffle; a cap that moves on a rigid sphere, which stands for a cone in its cabinet;
 * a rectangular opening (a horn, a ribbon) on such a sphere; or a point, which radiates alike everywhere.
 */
export type Radiator =
  | { kind: 'point' }
  | { kind: 'piston'; radiusM: number }
  | { kind: 'cap'; radiusM: number; sphereM: number }
  | { kind: 'opening'; widthM: number; heightM: number; sphereM: number };

/** A complex number. */
export interface Complex {
  re: number;
  im: number;
}

/**
 * Bessel function of the first kind and order 1, by its integral (Abramowitz and Stegun 9.1.21): the sum over a whole period is
 * exact to rounding once it has more terms than x.
 */
function besselJ1(x: number): number {
  const terms = 40 + 2 * Math.ceil(Math.abs(x));
  let sum = 0;
  for (let i = 0; i < terms; i++) {
    const t = (2 * Math.PI * i) / terms;
    sum += Math.cos(t - x * Math.sin(t));
  }
  return sum / terms;
}

/**
 * Pressure of a circular piston in an endless baffle far away, against that on its axis: 2 J1(x) / x with x = ka sin(angle)
 * (Rayleigh 1896); nothing behind the baffle.
 * @param ka wave number times radius
 * @param angle off its axis, radians
 */
export function pistonGain(ka: number, angle: number): number {
  if (angle > Math.PI / 2 + 1e-12) return 0;
  const x = ka * Math.sin(angle);
  return Math.abs(x) < 1e-6 ? 1 : (2 * besselJ1(x)) / x;
}

/** sin(x) / x */
export const sinc = (x: number): number => (Math.abs(x) < 1e-6 ? 1 - (x * x) / 6 : Math.sin(x) / x);

/**
 * Derivatives of spherical Hankel functions of the second kind, orders 0 to `most`, by recurrence upwards: past x the part of
 * the second kind rules, for which that is stable (Abramowitz and Stegun 10.1.19 and 10.1.20).
 */
function hankelDerivatives(most: number, x: number): Complex[] {
  // h0 = j e^{-jx} / x; orders one higher than asked for, for the derivative
  const h: Complex[] = [
    { re: Math.sin(x) / x, im: Math.cos(x) / x },
    { re: Math.sin(x) / x ** 2 - Math.cos(x) / x, im: Math.cos(x) / x ** 2 + Math.sin(x) / x },
  ];
  for (let n = 1; n <= most; n++) {
    const by = (2 * n + 1) / x;
    h.push({ re: by * h[n]!.re - h[n - 1]!.re, im: by * h[n]!.im - h[n - 1]!.im });
  }
  return Array.from({ length: most + 1 }, (_, n) =>
    n === 0
      ? { re: -h[1]!.re, im: -h[1]!.im }
      : {
          re: h[n - 1]!.re - ((n + 1) / x) * h[n]!.re,
          im: h[n - 1]!.im - ((n + 1) / x) * h[n]!.im,
        },
  );
}

/** Legendre polynomials of orders 0 to `most` at x (Bonnet's recurrence). */
export function legendre(most: number, x: number): Float64Array {
  const p = new Float64Array(most + 1);
  p[0] = 1;
  if (most > 0) p[1] = x;
  for (let n = 1; n < most; n++) p[n + 1] = ((2 * n + 1) * x * p[n]! - n * p[n - 1]!) / (n + 1);
  return p;
}

/**
 * Pressure of a cap that moves on a rigid sphere far away, as a function of the angle off its axis, against that on its axis;
 * the phase is as heard from the pole of the cap (Morse and Ingard 1968, chapter 7.2: radial velocity of the cap in Legendre
 * polynomials, each with its outgoing wave).
 * @param kr wave number times radius of the sphere, above 0
 * @param cap half the angle that the cap spans, radians
 */
export function capGain(kr: number, cap: number): (angle: number) => Complex {
  needWithin('capGain', 'wave number times radius', kr, 1e-6, 500);
  needWithin('capGain', 'half angle of the cap', cap, 1e-6, Math.PI);
  // of higher orders less than a billionth leaves the sphere
  const most = Math.ceil(kr + 12 + 6 * Math.cbrt(kr));
  const edge = legendre(most + 1, Math.cos(cap));
  const slopes = hankelDerivatives(most, kr);
  const weights: Complex[] = [];
  for (let n = 0; n <= most; n++) {
    const velocity = n === 0 ? 1 - edge[1]! : edge[n - 1]! - edge[n + 1]!;
    const { re, im } = slopes[n]!;
    const size = re * re + im * im;
    if (!Number.isFinite(size)) break;
    // times j^(n + 1), divided by the slope
    const [a, b] = [(velocity * re) / size, (-velocity * im) / size];
    const quarter = (n + 1) % 4;
    weights.push(
      [
        { re: a, im: b },
        { re: -b, im: a },
        { re: -a, im: -b },
        { re: b, im: -a },
      ][quarter]!,
    );
  }
  const sum = (cosine: number): Complex => {
    const p = legendre(weights.length - 1, cosine);
    let [re, im] = [0, 0];
    weights.forEach((w, n) => {
      re += w.re * p[n]!;
      im += w.im * p[n]!;
    });
    return { re, im };
  };
  const axis = sum(1);
  const power = axis.re ** 2 + axis.im ** 2;
  return (angle) => {
    const cosine = Math.cos(angle);
    const s = sum(cosine);
    const ratio = {
      re: (s.re * axis.re + s.im * axis.im) / power,
      im: (s.im * axis.re - s.re * axis.im) / power,
    };
    // the pole lies nearer by the radius on axis, and less so beside it
    const turn = kr * (1 - cosine);
    const [c, d] = [Math.cos(turn), Math.sin(turn)];
    return { re: ratio.re * c - ratio.im * d, im: ratio.re * d + ratio.im * c };
  };
}

/** Half the angle that the small source spans which casts the shadow of a cabinet behind an opening. */
const SHADOW_CAP = 0.05;

/**
 * Directivity of a radiator at a wave number: by the angle off its axis and the angle about it (0 to its left, counter-clockwise
 * as it looks, so that pi/2 is up), against what it radiates on its axis.
 * @param k wave number, 1/m, above 0
 */
export function radiatorGain(radiator: Radiator, k: number): (angle: number, about: number) => Complex {
  switch (radiator.kind) {
    case 'point':
      return () => ({ re: 1, im: 0 });
    case 'piston':
      return (angle) => ({ re: pistonGain(k * radiator.radiusM, angle), im: 0 });
    case 'cap':
      return capGain(k * radiator.sphereM, Math.asin(Math.min(1, radiator.radiusM / radiator.sphereM)));
    case 'opening': {
      const shadow = capGain(k * radiator.sphereM, SHADOW_CAP);
      return (angle, about) => {
        const s = Math.sin(angle);
        const gain =
          sinc((k * radiator.widthM * s * Math.cos(about)) / 2) *
          sinc((k * radiator.heightM * s * Math.sin(about)) / 2);
        const { re, im } = shadow(angle);
        return { re: gain * re, im: gain * im };
      };
    }
  }
}

/**
 * Pressure on the surface of a rigid sphere in a plane wave, against that in its middle if it were not there, by the angle between the point and
 * where the wave comes from (Rayleigh 1904; Duda and Martens 1998); the phase is as against the middle.
 * @param kr wave number times radius of the sphere, above 0
 */
export function sphereGain(kr: number): (angle: number) => Complex {
  needWithin('sphereGain', 'wave number times radius', kr, 1e-6, 500);
  const most = Math.ceil(kr + 12 + 6 * Math.cbrt(kr));
  const weights: Complex[] = [];
  for (const [n, { re, im }] of hankelDerivatives(most, kr).entries()) {
    const size = re * re + im * im;
    if (!Number.isFinite(size)) break;
    // -j j^n (2 n + 1) / (kr^2 h'), which is turned by a quarter n - 1 times
    const by = (2 * n + 1) / (kr * kr);
    const [a, b] = [(by * re) / size, (-by * im) / size];
    weights.push(
      [
        { re: b, im: -a },
        { re: a, im: b },
        { re: -b, im: a },
        { re: -a, im: -b },
      ][n % 4]!,
    );
  }
  return (angle) => {
    const p = legendre(weights.length - 1, Math.cos(angle));
    let [re, im] = [0, 0];
    weights.forEach((w, n) => {
      re += w.re * p[n]!;
      im += w.im * p[n]!;
    });
    return { re, im };
  };
}
