import { describe, expect, it } from 'vitest';
import { gainOfDb, logGrid, seededRandom } from '../signal/index.js';
import { readShapes, shapeTrace, type ReadCurve, type Shape, type WantedShape } from './index.js';

const grid = logGrid(20, 20_000, 48);
/** `npm run bars` takes all of them. */
const DRAWS = process.env['PEBBLE_HALL_DRAWS'] === 'all' ? 60 : 20;
const everything = { from: 20, to: 20_000, levelIsFree: true, rate: null };

function curveOf(
  shapes: Shape[],
  { levelDb = 0, noiseDb = 0, delayS = 0, inverted = false, seed = 1, rate = null as number | null } = {},
): ReadCurve {
  const { re, im } = shapeTrace(shapes, grid, rate);
  const random = seededRandom(seed);
  const out = {
    frequency: grid,
    re: re.slice(),
    im: im.slice(),
    coherence: grid.map(() => NaN),
    hasPhase: true,
  };
  grid.forEach((f, n) => {
    const gain = gainOfDb(levelDb + noiseDb * random.normal()) * (inverted ? -1 : 1);
    const turn = -2 * Math.PI * f * delayS;
    const [c, s] = [gain * Math.cos(turn), gain * Math.sin(turn)];
    out.re[n] = re[n]! * c - im[n]! * s;
    out.im[n] = re[n]! * s + im[n]! * c;
  });
  return out;
}

const wantedOf = (shape: Shape): WantedShape => {
  switch (shape.kind) {
    case 'peaking':
      return { kind: 'peaking' };
    case 'low shelf':
    case 'high shelf':
      return { kind: shape.kind, order: null, undershoots: (shape.q ?? 0) > 0.71 };
    case 'all-pass':
      return { kind: 'all-pass', order: null };
    default:
      return { kind: shape.kind, family: null, order: null };
  }
};

/** The bars: 0.5 % of frequency, 0.1 dB of gain, 3 % of q. */
function expectAlike(found: Shape, made: Shape) {
  expect(found.kind).toBe(made.kind);
  expect(Math.abs(found.hz / made.hz - 1)).toBeLessThan(0.005);
  if ('gainDb' in made) expect(Math.abs((found as typeof made).gainDb - made.gainDb)).toBeLessThan(0.1);
  if ('order' in made) expect((found as typeof made).order).toBe(made.order);
  if ('family' in made) expect((found as typeof made).family).toBe(made.family);
  if ('q' in made && made.q !== null)
    expect(Math.abs((found as { q: number }).q / made.q - 1)).toBeLessThan(0.03);
}

const CLEAN: [string, Shape[]][] = [
  ['a boost', [{ kind: 'peaking', hz: 1234, gainDb: 11.3, q: 0.83 }]],
  ['a narrow cut', [{ kind: 'peaking', hz: 63.7, gainDb: -14.6, q: 9.2 }]],
  ['a low shelf of first order', [{ kind: 'low shelf', hz: 92, gainDb: 12.4, order: 1, q: null }]],
  ['a high shelf of second order', [{ kind: 'high shelf', hz: 8100, gainDb: -9, order: 2, q: 0.58 }]],
  ['a shelf with undershoot', [{ kind: 'low shelf', hz: 110, gainDb: 10, order: 2, q: 1.4 }]],
  ['a high-pass of third order', [{ kind: 'high-pass', hz: 81, family: 'Butterworth', order: 3 }]],
  ['a Bessel low-pass', [{ kind: 'low-pass', hz: 1800, family: 'Bessel', order: 4 }]],
  ['a crossover', [{ kind: 'high-pass', hz: 1100, family: 'Linkwitz-Riley', order: 8 }]],
];
const CHANNEL: [string, Shape[]] = [
  'a whole channel of a mixer',
  [
    { kind: 'high-pass', hz: 78, family: 'Butterworth', order: 3 },
    { kind: 'low shelf', hz: 130, gainDb: 6.5, order: 1, q: null },
    { kind: 'peaking', hz: 900, gainDb: -8, q: 0.9 },
    { kind: 'high shelf', hz: 9500, gainDb: 4.2, order: 1, q: null },
  ],
];

describe('clean curves are read within 0.5 % of frequency, 0.1 dB of gain, 3 % of q', () => {
  const isRead = (_: string, shapes: Shape[]) => {
    const {
      shapes: found,
      levelDb,
      leftDb,
    } = readShapes(curveOf(shapes, { levelDb: -3.7, delayS: 2e-4 }), shapes.map(wantedOf), everything);
    found.forEach(({ shape }, i) => expectAlike(shape, shapes[i]!));
    expect(levelDb).toBeCloseTo(-3.7, 1);
    expect(leftDb).toBeLessThan(0.01);
  };
  it.each(CLEAN)('%s', isRead);
  it.each([CHANNEL])('%s', { tags: 'bars' }, isRead);
  it('all-passes from the phase, behind a delay and the other polarity', () => {
    const shapes: Shape[] = [
      { kind: 'all-pass', hz: 140, order: 2, q: 0.9 },
      { kind: 'peaking', hz: 2500, gainDb: 5, q: 2 },
    ];
    const {
      shapes: found,
      delayS,
      leftDeg,
    } = readShapes(curveOf(shapes, { delayS: 3.1e-4, inverted: true }), shapes.map(wantedOf), everything);
    found.forEach(({ shape }, i) => expectAlike(shape, shapes[i]!));
    expect(delayS).toBeCloseTo(3.1e-4, 7);
    expect(leftDeg).toBeLessThan(0.1);
  });
  it('those of a processor near half its rate, as it makes them', () => {
    const shapes: Shape[] = [{ kind: 'peaking', hz: 15_000, gainDb: 6, q: 1.2 }];
    const curve = curveOf(shapes, { rate: 48_000 });
    const [read] = readShapes(curve, [{ kind: 'peaking' }], { ...everything, rate: 48_000 }).shapes;
    expectAlike(read!.shape, shapes[0]!);
    const analogue = readShapes(curve, [{ kind: 'peaking' }], everything);
    expect(analogue.leftDb).toBeGreaterThan(0.05);
  });
});

describe('how sure it is', () => {
  it('with 1 dB of noise the truth lies within two errors in nineteen of twenty readings', () => {
    const shape = { kind: 'peaking', hz: 400, gainDb: 8, q: 1.5 } as const;
    const inside = { hz: 0, gainDb: 0, q: 0 };
    for (let seed = 1; seed <= DRAWS; seed++) {
      const [read] = readShapes(
        curveOf([shape], { noiseDb: 1, seed }),
        [{ kind: 'peaking' }],
        everything,
      ).shapes;
      const { shape: found, errors } = read as typeof read & { shape: typeof shape };
      if (Math.abs(Math.log(found.hz / shape.hz)) < 2 * errors.hz!) inside.hz++;
      if (Math.abs(found.gainDb - shape.gainDb) < 2 * errors.gainDb!) inside.gainDb++;
      if (Math.abs(Math.log(found.q / shape.q)) < 2 * errors.q!) inside.q++;
    }
    // 57 of 60 are expected; fewer than 50 or all of them with room to spare would tell of errors that are not honest
    for (const count of Object.values(inside)) expect(count).toBeGreaterThanOrEqual((5 / 6) * DRAWS);
  });
  it('what is left of a wrong model widens the errors', () => {
    const curve = curveOf([
      { kind: 'peaking', hz: 300, gainDb: 6, q: 2 },
      { kind: 'peaking', hz: 700, gainDb: -4, q: 3 },
    ]);
    const one = readShapes(curve, [{ kind: 'peaking' }], everything);
    const both = readShapes(curve, [{ kind: 'peaking' }, { kind: 'peaking' }], everything);
    expect(one.shapes[0]!.errors.gainDb!).toBeGreaterThan(0.2);
    expect(both.shapes[0]!.errors.gainDb!).toBeLessThan(0.01);
  });
  it('tells the next best order and what it would leave', () => {
    const curve = curveOf([{ kind: 'low-pass', hz: 700, family: 'Butterworth', order: 4 }]);
    const [read] = readShapes(
      curve,
      [{ kind: 'low-pass', family: 'Butterworth', order: null }],
      everything,
    ).shapes;
    expect([3, 5]).toContain((read!.nextBest!.shape as { order: number }).order);
    expect(read!.nextBest!.left).toBeGreaterThan(0.5);
  });
  it('what the coherence calls noise does not count', () => {
    const curve = curveOf([{ kind: 'peaking', hz: 2000, gainDb: 6, q: 1 }]);
    curve.coherence.fill(0.99);
    grid.forEach((f, n) => {
      if (f > 200) return;
      curve.re[n] = 5;
      curve.coherence[n] = 0.2;
    });
    const { shapes, points } = readShapes(curve, [{ kind: 'peaking' }], everything);
    expectAlike(shapes[0]!.shape, { kind: 'peaking', hz: 2000, gainDb: 6, q: 1 });
    expect(points).toBeLessThan(grid.length - 150);
  });
});

describe('refuses', () => {
  const curve = curveOf([{ kind: 'peaking', hz: 2000, gainDb: 6, q: 1 }]);
  it('a curve of which too little counts, and nothing to look for', () => {
    expect(() => readShapes(curve, [], everything)).toThrow(/no shape/);
    expect(() => readShapes(curve, [{ kind: 'peaking' }], { ...everything, from: 1000, to: 1050 })).toThrow(
      /points of the curve count/,
    );
    expect(() => readShapes(curve, [{ kind: 'peaking' }], { ...everything, to: NaN })).toThrow(RangeError);
    const broken = { ...curve, re: curve.re.map(() => NaN) };
    expect(() => readShapes(broken, [{ kind: 'peaking' }], everything)).toThrow(/points of the curve count/);
  });
  it('an all-pass where there is no phase', () => {
    expect(() =>
      readShapes({ ...curve, hasPhase: false }, [{ kind: 'all-pass', order: 1 }], everything),
    ).toThrow(/phase/);
  });
});
