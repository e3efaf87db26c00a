import { allPassTurn } from '../path/index.js';
import { describe, expect, it } from 'vitest';
import { shapeTrace, type Shape } from '../shapes/index.js';
import { logGrid, seededRandom, type ComplexTrace } from '../signal/index.js';
import {
  alignmentAt,
  findAlignments,
  lateS,
  lossDb,
  readPair,
  type AlignPoint,
  type PairReading,
} from './index.js';

/** A hundred in the long bars. */
const PAIRS = process.env['PEBBLE_HALL_DRAWS'] === 'all' ? 100 : 20;
const grid = logGrid(20, 2000, 12);
/** A source: its band, when it arrives, how loud it is, and what comes back of it from the room. */
function source(
  shapes: Shape[],
  delayS: number,
  gain = 1,
  echoes: [gain: number, delayS: number][] = [],
): ComplexTrace {
  const own = shapes.length > 0 ? shapeTrace(shapes, grid) : { re: grid.map(() => 1), im: grid.map(() => 0) };
  const arrivals: [number, number][] = [[1, 0], ...echoes];
  const re = new Float64Array(grid.length);
  const im = new Float64Array(grid.length);
  grid.forEach((f, n) => {
    for (const [g, t] of arrivals) {
      const turn = -2 * Math.PI * f * (delayS + t);
      const [c, s] = [gain * g * Math.cos(turn), gain * g * Math.sin(turn)];
      re[n] = re[n]! + own.re[n]! * c - own.im[n]! * s;
      im[n] = im[n]! + own.re[n]! * s + own.im[n]! * c;
    }
  });
  return { frequency: grid, re, im };
}
const pass = (kind: 'high-pass' | 'low-pass', hz: number, order: number): Shape => ({
  kind,
  hz,
  family: 'Butterworth',
  order,
});
const one = (reference: ComplexTrace, moved: ComplexTrace): AlignPoint[] => [{ reference, moved, weight: 1 }];
const request = { mostDelayS: 0.02, mostAllPasses: 0, aim: 'mean' as const };

describe('two sources at one place', () => {
  it('equal and in time add up whole; a quarter turn costs 3 dB, a third 6', () => {
    const reading = readPair(source([], 0), source([], 0)) as PairReading;
    expect(reading.meanEfficiency).toBeCloseTo(1, 12);
    expect(reading.band).toEqual({ from: grid[0], to: grid.at(-1) });
    expect(lossDb(0)).toBe(0);
    expect(lossDb(60)).toBeCloseTo(1.249, 3);
    expect(lossDb(-90)).toBeCloseTo(3.01, 2);
    expect(lossDb(120)).toBeCloseTo(6.02, 2);
  });

  it('the shared band ends where one is 10 dB softer: of a crossover of first order at 1 / 3 and 3 times its frequency', () => {
    // |high| / |low| = f / f0: 10 dB apart at f0 * sqrt(10) and f0 / sqrt(10)
    const reading = readPair(
      source([pass('high-pass', 200, 1)], 0),
      source([pass('low-pass', 200, 1)], 0),
    ) as PairReading;
    // to a point of the grid
    expect(Math.abs(Math.log2(reading.band.from / (200 / Math.sqrt(10))))).toBeLessThan(1 / 12);
    expect(Math.abs(Math.log2(reading.band.to / (200 * Math.sqrt(10))))).toBeLessThan(1 / 12);
    // a quarter turn everywhere: |a + b| = sqrt(a2 + b2)
    const n = grid.findIndex((f) => f >= 200);
    expect(reading.efficiency[n]).toBeCloseTo(Math.SQRT1_2, 2);
    expect(reading.phaseDeg[n]).toBeCloseTo(-90, 6);
    expect(reading.weight[n]).toBeCloseTo(1, 1);
  });

  it('late is late, and a lead is below nothing', () => {
    const reading = readPair(source([], 0.001), source([], 0.0018)) as PairReading;
    const n = grid.findIndex((f) => f >= 100);
    expect(lateS(reading.phaseDeg[n]!, grid[n]!)).toBeCloseTo(0.0008, 9);
    const other = readPair(source([], 0.0018), source([], 0.001)) as PairReading;
    expect(lateS(other.phaseDeg[n]!, grid[n]!)).toBeCloseTo(-0.0008, 9);
  });

  it('forty dB apart there is no overlap, and what is not coherent is not judged', () => {
    expect(readPair(source([], 0), source([], 0, 0.01))).toEqual({
      reason: 'no overlap',
      apartDb: expect.closeTo(40, 6) as number,
    });
    const noisy = { ...source([], 0), coherence: grid.map((f) => (f < 100 ? 0.9 : 0.2)) };
    expect((readPair(source([], 0), noisy) as PairReading).band.to).toBeLessThan(100);
    const none = { ...source([], 0), coherence: grid.map(() => 0.2) };
    expect(readPair(source([], 0), none)).toEqual({ reason: 'no coherence' });
    expect(findAlignments({ ...request, points: one(source([], 0), source([], 0, 0.01)) })).toEqual([]);
  });
});

it('an all-pass of second order is half a turn at its frequency, of first order a quarter', () => {
  expect(allPassTurn({ hz: 80, q: 0.7 }, 80)).toBeCloseTo(-Math.PI, 12);
  expect(allPassTurn({ hz: 80, q: null }, 80)).toBeCloseTo(-Math.PI / 2, 12);
  expect(allPassTurn({ hz: 80, q: 3 }, 80e6)).toBeCloseTo(-2 * Math.PI, 3);
});

describe('bringing them together', () => {
  const main = source([pass('high-pass', 90, 4)], 0.006);
  it('finds delay and polarity of a pair that is only late and inverted', () => {
    const [best] = findAlignments({ ...request, points: one(source([], 0.004), source([], 0.0072, -0.8)) });
    expect(best).toMatchObject({ inverted: true, atEdge: false });
    expect(best!.delayS).toBeCloseTo(-0.0032, 5);
    expect(best!.efficiency).toBeCloseTo(1, 6);
  });

  it('an aligned pair stays aligned when both are moved, and what was moved by hand is found', () => {
    const sub = source([pass('low-pass', 90, 4)], 0.002);
    const [best] = findAlignments({ ...request, points: one(main, sub) });
    const set = { ...best!, delayS: best!.delayS };
    const later = one(source([pass('high-pass', 90, 4)], 0.026), source([pass('low-pass', 90, 4)], 0.022));
    expect(alignmentAt(later, set)!.efficiency).toBeCloseTo(best!.efficiency, 9);
    // Butterworth crossovers of the fourth order are in phase: at equal distance nothing is to be done
    expect(best!.delayS).toBeCloseTo(0.004, 4);
    expect(best!.inverted).toBe(false);
  });

  it('an all-pass undoes an all-pass: what a delay cannot do it does', () => {
    const turned = withBand(source([{ kind: 'all-pass', hz: 120, order: 2, q: 2 }], 0.006));
    const points = one(turned, withBand(source([], 0.006)));
    const [plain, single] = findAlignments({ ...request, points, mostAllPasses: 1 });
    expect(plain!.efficiency).toBeLessThan(0.95);
    expect(single!.efficiency).toBeGreaterThan(0.9995);
    expect(single!.allPasses[0]!.hz / 120).toBeCloseTo(1, 1);
  });

  it('tells when the best lies at the edge of what was searched', () => {
    const far = one(withBand(source([], 0)), withBand(source([], 0.021)));
    expect(findAlignments({ ...request, points: far })[0]!.atEdge).toBe(true);
    expect(findAlignments({ ...request, mostDelayS: 0.08, points: far })[0]!.atEdge).toBe(false);
  });

  it('the worst seat is raised where it is asked for, at the cost of the mean', () => {
    // two seats that want different delays, the first counting more
    const points: AlignPoint[] = [
      { reference: source([], 0.01), moved: source([], 0.01), weight: 3 },
      { reference: source([], 0.01), moved: source([], 0.0112), weight: 1 },
    ];
    const narrow = points.map((p) => ({
      ...p,
      reference: withBand(p.reference),
      moved: withBand(p.moved),
    }));
    const [mean] = findAlignments({ ...request, points: narrow });
    const [worst] = findAlignments({ ...request, points: narrow, aim: 'worst' });
    expect(worst!.worst).toBeGreaterThan(mean!.worst + 0.005);
    expect(worst!.efficiency).toBeLessThan(mean!.efficiency);
    expect(worst!.delayS).toBeCloseTo(-0.0006, 4);
  });

  it('a point that counts for nothing is told, and decides nothing', () => {
    const points: AlignPoint[] = [
      { reference: source([], 0.01), moved: source([], 0.01), weight: 1 },
      { reference: source([], 0.01), moved: source([], 0.012), weight: 0 },
    ].map((p) => ({ ...p, reference: withBand(p.reference), moved: withBand(p.moved) }));
    const [worst] = findAlignments({ ...request, points, aim: 'worst' });
    expect(worst!.delayS).toBeCloseTo(0, 5);
    expect(worst!.worst).toBeCloseTo(1, 6);
    expect(worst!.atPoints[1]).toBeLessThan(0.9);
  });

  it('refuses what is no place, no range and too many sections', () => {
    expect(() => findAlignments({ ...request, points: [] })).toThrow(/no point/);
    const points = one(main, main);
    expect(() => findAlignments({ ...request, points, mostDelayS: 0 })).toThrow(/largest delay/);
    expect(() => findAlignments({ ...request, points, mostAllPasses: 3 })).toThrow(/all-pass/);
  });
});

/** Known between 60 and 240 Hz only. */
const withBand = (trace: ComplexTrace): ComplexTrace => ({
  ...trace,
  re: trace.re.map((v, n) => (grid[n]! > 60 && grid[n]! < 240 ? v : NaN)),
});

/** Mean efficiency by its definition, over points, with nothing tabulated. */
function efficiencyOver(points: AlignPoint[]): (turn: (f: number) => number) => number {
  const terms = points.map(({ reference: a, moved: b, weight }) => {
    const reading = readPair(a, b) as PairReading;
    const used = [...grid.keys()].filter((n) => reading.weight[n]! > 0);
    const total = used.reduce((sum, n) => sum + reading.weight[n]!, 0);
    return { a, b, weight, used, of: (n: number) => reading.weight[n]! / total };
  });
  const weights = terms.reduce((sum, t) => sum + t.weight, 0);
  return (turn) => {
    let all = 0;
    for (const { a, b, weight, used, of } of terms)
      for (const n of used) {
        const t = turn(grid[n]!);
        const [cos, sin] = [Math.cos(t), Math.sin(t)];
        const [x, y, u, v] = [a.re[n]!, a.im[n]!, b.re[n]!, b.im[n]!];
        const sum = Math.hypot(x + u * cos - v * sin, y + u * sin + v * cos);
        all += (weight * of(n) * sum) / (Math.hypot(x, y) + Math.hypot(u, v));
      }
    return all / weights;
  };
}

describe('held against trying everything', () => {
  const random = seededRandom(7);
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random.uniform() * of.length)]!;
  const pairs = Array.from({ length: PAIRS }, () => {
    const hz = between(60, 160);
    const echoes = (): [number, number][] =>
      Array.from({ length: 4 }, () => [between(-0.4, 0.4), between(0.003, 0.06)]);
    const [distanceA, distanceB] = [between(0, 0.015), between(0, 0.015)];
    return Array.from({ length: pick([1, 2, 4]) }, (): AlignPoint => ({
      reference: source(
        [pass('high-pass', hz, pick([1, 2, 3, 4]))],
        distanceA + between(0, 0.004),
        1,
        echoes(),
      ),
      moved: source(
        [pass('low-pass', hz * between(0.8, 1.3), pick([2, 3, 4]))],
        distanceB + between(0, 0.004),
        pick([-1, 1]) * between(0.6, 1.6),
        echoes(),
      ),
      weight: between(0.5, 1),
    }));
  });

  it('delay and polarity lie within 0.05 dB of the best there is', () => {
    for (const points of pairs) {
      const [best] = findAlignments({ ...request, points });
      const efficiency = efficiencyOver(points);
      let most = 0;
      for (let delayS = -0.02; delayS <= 0.02; delayS += 1e-4)
        for (const flip of [0, Math.PI])
          most = Math.max(
            most,
            efficiency((f) => flip - 2 * Math.PI * f * delayS),
          );
      expect(20 * Math.log10(best!.efficiency / most)).toBeGreaterThan(-0.05);
      // what is told of it is what it is
      const flip = best!.inverted ? Math.PI : 0;
      expect(best!.efficiency).toBeCloseTo(
        efficiency((f) => flip - 2 * Math.PI * f * best!.delayS),
        9,
      );
    }
  });

  it('with a section as well, tried by frequency, Q, delay and polarity', () => {
    for (const points of pairs.filter((p) => p.length === 1).slice(0, 4)) {
      const [, single] = findAlignments({ ...request, points, mostAllPasses: 1 });
      const efficiency = efficiencyOver(points);
      let most = 0;
      for (let hz = 30; hz < 350; hz *= 2 ** (1 / 5))
        for (const q of [null, 0.4, 0.6, 0.9, 1.3, 2, 3])
          for (let delayS = -0.02; delayS <= 0.02; delayS += 4e-4)
            for (const flip of [0, Math.PI])
              most = Math.max(
                most,
                efficiency((f) => flip - 2 * Math.PI * f * delayS + allPassTurn({ hz, q }, f)),
              );
      expect(20 * Math.log10(single!.efficiency / most)).toBeGreaterThan(-0.05);
    }
  });

  it('sections make it better, never worse', () => {
    for (const points of pairs.slice(0, 6)) {
      const [none, single, double] = findAlignments({ ...request, points, mostAllPasses: 2 });
      const db = (a: number, b: number) => 20 * Math.log10(a / b);
      expect(db(single!.efficiency, none!.efficiency)).toBeGreaterThan(-0.05);
      expect(db(double!.efficiency, single!.efficiency)).toBeGreaterThan(-0.05);
    }
  });
});
