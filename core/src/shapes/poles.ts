import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { needWhole } from '../limits/index.js';
import { MOST_ORDER, type FilterFamily } from './shape.js';

/** Factor 1 + first s + second s² of the denominator of a low-pass whose corner is at 1 rad/s. */
export interface PoleFactor {
  first: number;
  second: number;
}

const known = new Map<string, PoleFactor[]>();

/**
 * Poles of a low-pass as real factors, those of a Butterworth and a Bessel filter -3.01 dB, of a Linkwitz-Riley -6.02 dB at the corner.
 * A high-pass has the same with 1/s.
 * @throws RangeError for an order outside 1 to 12, or an odd one of a Linkwitz-Riley filter
 */
export function poleFactors(family: FilterFamily, order: number): PoleFactor[] {
  needWhole('poleFactors', 'order', order, 1, MOST_ORDER);
  const name = `${family} ${order}`;
  const factors = known.get(name) ?? made(family, order);
  known.set(name, factors);
  return factors;
}

function made(family: FilterFamily, order: number): PoleFactor[] {
  if (family === 'Bessel') return besselFactors(order);
  if (family === 'Butterworth') return butterworthFactors(order);
  if (order % 2) throw new RangeError(`poleFactors: a Linkwitz-Riley filter has an even order, got ${order}`);
  const half = butterworthFactors(order / 2);
  return [...half, ...half];
}

/** Poles on the unit circle, pi / order apart. */
function butterworthFactors(order: number): PoleFactor[] {
  const factors: PoleFactor[] = order % 2 ? [{ first: 1, second: 0 }] : [];
  for (let k = 0; k < Math.floor(order / 2); k++) {
    const angle = (Math.PI * (2 * k + 1)) / (2 * order);
    factors.push({ first: 2 * Math.sin(angle), second: 1 });
  }
  return factors;
}

/** Coefficients of the reverse Bessel polynomial of s^0 upwards: (2n - k)! / (2^(n-k) k! (n - k)!). */
export function besselPolynomial(order: number): number[] {
  const coefficients = [1];
  // from s^n down: each is the one above times (2n - k)(k + 1) / (2 (n - k))
  for (let k = order - 1; k >= 0; k--)
    coefficients.unshift((coefficients[0]! * (2 * order - k) * (k + 1)) / (2 * (order - k)));
  return coefficients;
}

/** Thomson's maximally flat delay, its corner moved to -3.01 dB. */
function besselFactors(order: number): PoleFactor[] {
  const coefficients = besselPolynomial(order);
  // s = scale * u makes the outer coefficients alike, so that the roots lie about 1
  const scale = coefficients[0]! ** (1 / order);
  const monic = coefficients.map((c, k) => c * scale ** (k - order));
  const companion = Matrix.zeros(order, order);
  for (let k = 0; k < order; k++) {
    companion.set(k, order - 1, -monic[k]!);
    if (k > 0) companion.set(k, k - 1, 1);
  }
  const { realEigenvalues, imaginaryEigenvalues } = new EigenvalueDecomposition(companion);
  const roots = realEigenvalues.map((re, k) => polished(monic, re, imaginaryEigenvalues[k]!));
  const factors = roots.flatMap(([re, im]): PoleFactor[] => {
    if (Math.abs(im) < 1e-9) return [{ first: -1 / re, second: 0 }];
    if (im < 0) return [];
    const size = re * re + im * im;
    return [{ first: (-2 * re) / size, second: 1 / size }];
  });
  const corner = cornerOf(factors);
  return factors.map(({ first, second }) => ({ first: first * corner, second: second * corner * corner }));
}

/** A root by Newton's method from near it. */
function polished(coefficients: readonly number[], re: number, im: number): [number, number] {
  for (let round = 0; round < 4; round++) {
    let [pr, pi, dr, di] = [0, 0, 0, 0];
    for (let k = coefficients.length - 1; k >= 0; k--) {
      [dr, di] = [dr * re - di * im + pr, dr * im + di * re + pi];
      [pr, pi] = [pr * re - pi * im + coefficients[k]!, pr * im + pi * re];
    }
    const size = dr * dr + di * di;
    if (!(size > 0)) break;
    re -= (pr * dr + pi * di) / size;
    im -= (pi * dr - pr * di) / size;
  }
  return [re, im];
}

/** Angular frequency at which the power has halved. */
function cornerOf(factors: readonly PoleFactor[]): number {
  const power = (w: number) =>
    factors.reduce((p, { first, second }) => p * ((1 - second * w * w) ** 2 + (first * w) ** 2), 1);
  let [low, high] = [1e-3, 1e3];
  for (let round = 0; round < 200 && high / low - 1 > 1e-15; round++) {
    const middle = Math.sqrt(low * high);
    if (power(middle) < 2) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}
