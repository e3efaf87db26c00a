import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { boundsOf, isWithin, signedArea, type Corner } from '../geometry/index.js';
import { needAbove, needFinite } from '../limits/index.js';

/** A standing wave between the walls of an outline, even over its height. */
export interface PlanMode {
  /** wave number, rad/m; 0 for the one that is the same everywhere */
  waveNumber: number;
  /** shares of the basis, so that its largest pressure is 1 */
  shares: Float64Array;
}

/** Modes of an outline with what they are made of: cosines over the rectangle around it. */
export interface PlanModes {
  least: Corner;
  /** sides of the rectangle, metres */
  width: number;
  depth: number;
  /** half waves along both sides, of each share */
  basis: readonly (readonly [x: number, y: number])[];
  modes: PlanMode[];
  /** up to this wave number all modes are there, rad/m */
  upTo: number;
}

/** How much finer than the finest mode the basis is: lowers the error at corners that point inwards. */
const FINER = 2;
const FEWEST_SIDE = 15;
const MOST_BASIS = 320;
/** Combinations of cosines that are smaller than this within the outline say nothing of it. */
const NOTHING = 1e-11;
/** Places to either side at which the largest pressure is looked for. */
const LOOKED = 48;

/**
 * Modes of a two-dimensional room with hard walls and any outline, after Rayleigh and Ritz: cosines of the rectangle around it as
 * trial functions, whose integrals over the outline are known exactly from its sides (Green). Hard walls are what these integrals
 * bring about by themselves. Exact for rectangles; corners that point inwards leave an error below 1 % in frequency.
 * @param outline metres, either way round, without crossing
 * @param upTo wave number, rad/m; less is given where that needs more trial functions than are made
 * @throws RangeError for an outline that encloses nothing
 */
export function planModes(outline: readonly Corner[], upTo: number): PlanModes {
  needAbove('planModes', 'largest wave number in rad/m', upTo, 0);
  needFinite(
    'planModes',
    'outline',
    outline.flatMap(({ x, y }) => [x, y]),
  );
  const area = signedArea(outline);
  needAbove('planModes', 'area in m2', Math.abs(area), 0);
  const { least, most } = boundsOf(outline);
  const [width, depth] = [most.x - least.x, most.y - least.y];
  const moved = outline.map(({ x, y }) => ({ x: x - least.x, y: y - least.y }));
  const [alpha, beta] = [Math.PI / width, Math.PI / depth];
  const { basis, reached } = basisFor(alpha, beta, upTo);
  const count = basis.length;
  const [longest, deepest] = [0, 1].map((k) => Math.max(...basis.map((b) => b[k]!))) as [number, number];
  // clockwise outlines give the same with the other sign
  const sign = Math.sign(area) || 1;
  const table = Array.from({ length: 2 * longest + 1 }, (_, i) =>
    Float64Array.from(
      { length: 2 * deepest + 1 },
      (_, j) => sign * cosineIntegral(moved, i * alpha, j * beta),
    ),
  );
  const mass = new Matrix(count, count);
  const stiffness = new Matrix(count, count);
  for (let a = 0; a < count; a++)
    for (let b = 0; b <= a; b++) {
      const [[m, n], [k, l]] = [basis[a]!, basis[b]!];
      const [dx, sx, dy, sy] = [Math.abs(m - k), m + k, Math.abs(n - l), n + l];
      const [dd, ds, sd, ss] = [table[dx]![dy]!, table[dx]![sy]!, table[sx]![dy]!, table[sx]![sy]!];
      const weight = (dd + ds + sd + ss) / 4;
      const bend = (alpha ** 2 * m * k * (dd + ds - sd - ss) + beta ** 2 * n * l * (dd - ds + sd - ss)) / 4;
      for (const [r, c] of [
        [a, b],
        [b, a],
      ] as const) {
        mass.set(r, c, weight);
        stiffness.set(r, c, bend);
      }
    }
  const found = lowest(mass, stiffness).filter(({ square }) => square <= reached ** 2 * (1 + 1e-9));
  const plan = { least, width, depth, basis, upTo: reached };
  return {
    ...plan,
    modes: found.map(({ square, shares }) => ({
      waveNumber: Math.sqrt(Math.max(0, square)),
      shares: scaled(plan, moved, shares),
    })),
  };
}

/** Pressure of a mode of the plan at a place in it; 1 at most. */
export function planPressure(
  { least, width, depth, basis }: Pick<PlanModes, 'least' | 'width' | 'depth' | 'basis'>,
  shares: ArrayLike<number>,
  at: Corner,
): number {
  const [u, v] = [(Math.PI * (at.x - least.x)) / width, (Math.PI * (at.y - least.y)) / depth];
  let sum = 0;
  for (let i = 0; i < basis.length; i++)
    sum += shares[i]! * Math.cos(basis[i]![0] * u) * Math.cos(basis[i]![1] * v);
  return sum;
}

/** Half waves along both sides, all that are needed, coarser ones first; and the wave number up to which they suffice. */
function basisFor(alpha: number, beta: number, upTo: number) {
  const all: (readonly [number, number])[] = [];
  const reach = FINER * upTo;
  const [columns, rows] = [alpha, beta].map((a) => Math.max(FEWEST_SIDE, Math.ceil(reach / a))) as [
    number,
    number,
  ];
  const sizeOf = ([m, n]: readonly [number, number]) => Math.hypot(m * alpha, n * beta);
  const corner = Math.max(reach, FEWEST_SIDE * Math.max(alpha, beta));
  for (let m = 0; m <= columns; m++)
    for (let n = 0; n <= rows; n++) if (sizeOf([m, n]) <= corner) all.push([m, n]);
  all.sort((a, b) => sizeOf(a) - sizeOf(b));
  const basis = all.slice(0, MOST_BASIS);
  const reached = all.length > MOST_BASIS ? Math.min(upTo, sizeOf(basis.at(-1)!) / FINER) : upTo;
  return { basis, reached };
}

const sinc = (u: number) => (Math.abs(u) < 1e-9 ? 1 : Math.sin(u) / u);
/** Mean of the sine of a phase that goes evenly from one value to another. */
const meanSine = (from: number, to: number) => Math.sin((from + to) / 2) * sinc((to - from) / 2);

/** Integral of cos(p x) cos(q y) over an outline, counter-clockwise, along its sides (Green). */
function cosineIntegral(outline: readonly Corner[], p: number, q: number): number {
  let sum = 0;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const together = meanSine(p * a.x + q * a.y, p * b.x + q * b.y);
    const apart = meanSine(p * a.x - q * a.y, p * b.x - q * b.y);
    if (p > 0) sum += ((b.y - a.y) * (together + apart)) / (2 * p);
    else if (q > 0) sum -= ((b.x - a.x) * (together - apart)) / (2 * q);
    else sum += (a.x * b.y - b.x * a.y) / 2;
  });
  return sum;
}

/** Solutions of stiffness v = square mass v, lowest first, where mass tells the trial functions apart. */
function lowest(mass: Matrix, stiffness: Matrix): { square: number; shares: Float64Array }[] {
  const { realEigenvalues: sizes, eigenvectorMatrix: turned } = new EigenvalueDecomposition(mass, {
    assumeSymmetric: true,
  });
  const largest = Math.max(...sizes);
  const kept = sizes.flatMap((size, i) => (size > NOTHING * largest ? [i] : []));
  const into = new Matrix(mass.rows, kept.length);
  kept.forEach((from, k) => {
    const size = Math.sqrt(sizes[from]!);
    for (let r = 0; r < mass.rows; r++) into.set(r, k, turned.get(r, from) / size);
  });
  const small = into.transpose().mmul(stiffness).mmul(into);
  const { realEigenvalues: squares, eigenvectorMatrix: vectors } = new EigenvalueDecomposition(small, {
    assumeSymmetric: true,
  });
  const shares = into.mmul(vectors);
  return squares
    .map((square, i) => ({ square, shares: Float64Array.from(shares.getColumn(i)) }))
    .sort((a, b) => a.square - b.square);
}

/** Shares by which the largest pressure within the outline is 1. */
function scaled(
  plan: Omit<PlanModes, 'modes'>,
  moved: readonly Corner[],
  shares: Float64Array,
): Float64Array {
  const { least, width, depth } = plan;
  const at = ({ x, y }: Corner) => planPressure(plan, shares, { x: x + least.x, y: y + least.y });
  let largest = 0;
  for (const corner of moved) if (Math.abs(at(corner)) > Math.abs(largest)) largest = at(corner);
  for (let i = 0; i <= LOOKED; i++)
    for (let j = 0; j <= LOOKED; j++) {
      const place = { x: (width * i) / LOOKED, y: (depth * j) / LOOKED };
      if (!isWithin(moved, place)) continue;
      const p = at(place);
      if (Math.abs(p) > Math.abs(largest)) largest = p;
    }
  return shares.map((s) => s / largest);
}
