import { describe, expect, it } from 'vitest';
import { layerOf, pistonGain, type Radiator } from '../directivity/index.js';
import { axesOf, type Point } from '../geometry/index.js';
import { boxesOf, type Group } from '../place/index.js';
import { airAbsorption } from '../room/index.js';
import { fieldPower, firstArrivalS, mirrored, type FieldSource } from './field.js';

/** So far away, metres, that ways differ by their directions alone, to a millionth of a wave. */
const FAR = 1e7;

const C = 340;
const AIR = { temperatureC: 20, relativeHumidityPercent: 50 };
const POINT: Radiator = { kind: 'point' };
const way = (radiator: Radiator) => ({ radiator, ahead: 0, left: 0, up: 0, gainDb: 0, filters: [] });

/** A source of pressure 1 at 1 m at each frequency, later by `delayS`. */
function source(
  position: Point,
  frequencies: number[],
  { yawDeg = 0, pitchDeg = 0, delayS = 0, gain = 1, radiator = POINT } = {},
): FieldSource {
  const turn = (f: number) => -2 * Math.PI * f * delayS;
  return {
    position,
    axes: axesOf(yawDeg, pitchDeg),
    re: Float64Array.from(frequencies, (f) => gain * Math.cos(turn(f))),
    im: Float64Array.from(frequencies, (f) => gain * Math.sin(turn(f))),
    layers: frequencies.map((f) => layerOf([way(radiator)], f, C)),
  };
}
const at = (x: number, y = 0, z = 0): Point => ({ x, y, z });
const pressures = (
  sources: FieldSource[],
  points: Point[],
  frequencies: number[],
  how: 'coherent' | 'power' = 'coherent',
  more = {},
) =>
  fieldPower(
    {
      sources,
      points: Float64Array.from(points.flatMap((p) => [p.x, p.y, p.z])),
      frequencies: Float64Array.from(frequencies),
      speed: C,
      air: null,
      ground: null,
      ...more,
    },
    how,
  ).map((power) => [...power].map(Math.sqrt));

describe('closed forms, to 1e-6 of pressure', () => {
  it('one source falls with the distance, and by what air swallows', () => {
    const f = [100, 8000];
    const s = [source(at(0), f)];
    const [low, high] = pressures(s, [at(2), at(3, 4)], f);
    expect(low![0]).toBeCloseTo(0.5, 6);
    expect(low![1]).toBeCloseTo(0.2, 6);
    expect(high![1]).toBeCloseTo(0.2, 6);
    const swallowed = pressures(s, [at(100)], f, 'coherent', { air: AIR });
    expect(swallowed[1]![0]).toBeCloseTo(0.01 * 10 ** (-(100 * airAbsorption(8000, AIR)) / 20), 9);
  });

  it('two of them: pressures add with their ways and delays, powers as powers', () => {
    const f = [170, 340];
    // one wave length and two; 1 m further is half a wave and a whole one
    const two = [source(at(0), f), source(at(-1), f)];
    const points = [at(4)];
    const [half, whole] = pressures(two, points, f);
    expect(half![0]).toBeCloseTo(1 / 4 - 1 / 5, 6);
    expect(whole![0]).toBeCloseTo(1 / 4 + 1 / 5, 6);
    expect(pressures(two, points, f, 'power')[0]![0]).toBeCloseTo(Math.hypot(1 / 4, 1 / 5), 6);
    // the nearer one later by that metre: together at every frequency
    const aligned = [source(at(0), f, { delayS: 1 / C }), source(at(-1), f)];
    for (const level of pressures(aligned, points, f)) expect(level[0]).toBeCloseTo(1 / 4 + 1 / 5, 6);
    const against = [source(at(0), f, { gain: -1, delayS: 1 / C }), source(at(-1), f)];
    for (const level of pressures(against, points, f)) expect(level[0]).toBeCloseTo(1 / 4 - 1 / 5, 6);
  });

  const grouped = (group: Group, frequencies: number[]) =>
    boxesOf({ position: at(0), aimDeg: 0, pitchDeg: 0, rollDeg: 0, group }).map((b) =>
      source(b.position, frequencies, { delayS: b.delayMs / 1000, gain: b.inverted ? -1 : 1 }),
    );

  it('a gradient pair: |1 - e^{-jkd(1 + cos)}| far away, nothing behind it', () => {
    const [f, d, far] = [60, 0.8, FAR];
    const pair = grouped({ kind: 'gradient', spacingM: d, rearDelayMs: (1000 * d) / C }, [f]);
    const angles = [0, 60, 90, 120, 180];
    const points = angles.map((deg) =>
      at(far * Math.cos((deg * Math.PI) / 180), far * Math.sin((deg * Math.PI) / 180)),
    );
    const [levels] = pressures(pair, points, [f]);
    const k = (2 * Math.PI * f) / C;
    angles.forEach((deg, i) => {
      const want = 2 * Math.abs(Math.sin((k * d * (1 + Math.cos((deg * Math.PI) / 180))) / 2));
      expect(levels![i]! * far).toBeCloseTo(want, 6);
    });
  });

  it('a gradient pair near by: two ways by the law of cosines, and what lies between them', () => {
    const [f, d] = [60, 0.8];
    const pair = grouped({ kind: 'gradient', spacingM: d, rearDelayMs: (1000 * d) / C }, [f]);
    const k = (2 * Math.PI * f) / C;
    // the place of a pair is its middle: one half ahead of it, the other as far behind
    for (const r of [1.5, 3, 10])
      for (const deg of [0, 35, 90, 140, 180]) {
        const cosine = Math.cos((deg * Math.PI) / 180);
        const way = (side: 1 | -1) => Math.sqrt(r * r + (d * d) / 4 - side * r * d * cosine);
        const [front, rear] = [way(1), way(-1)];
        const turn = k * (rear + d - front);
        const want = Math.sqrt(1 / front ** 2 + 1 / rear ** 2 - (2 * Math.cos(turn)) / (front * rear));
        const point = at(r * cosine, r * Math.sin((deg * Math.PI) / 180));
        expect(pressures(pair, [point], [f])[0]![0]).toBeCloseTo(want, 6);
      }
  });

  it('end-fire: all arrive together ahead', () => {
    const [f, d, n] = [80, 0.9, 4];
    const line = grouped({ kind: 'end-fire', count: n, spacingM: d, stepMs: (1000 * d) / C }, [f]);
    const [ahead, behind] = pressures(line, [at(50), at(-50)], [f])[0]!;
    const distances = Array.from({ length: n }, (_, i) => 50 - (i - (n - 1) / 2) * d);
    expect(ahead).toBeCloseTo(
      distances.reduce((sum, r) => sum + 1 / r, 0),
      6,
    );
    const turn = (2 * Math.PI * f * 2 * d) / C;
    // behind, each comes later by twice the way from one to the next
    let [re, im] = [0, 0];
    distances.forEach((_, i) => {
      const r = 50 + (i - (n - 1) / 2) * d;
      re += Math.cos(i * turn) / r;
      im -= Math.sin(i * turn) / r;
    });
    expect(behind).toBeCloseTo(Math.hypot(re, im), 6);
    const [far] = pressures(line, [at(-FAR)], [f])[0]!;
    expect(far! * FAR).toBeCloseTo(Math.abs(Math.sin((n * turn) / 2) / Math.sin(turn / 2)), 6);
  });

  it('a line far away: sin(n x) / sin(x)', () => {
    const [f, d, n, far] = [1000, 0.25, 8, FAR];
    const line = Array.from({ length: n }, (_, i) => source(at(0, 0, (i - (n - 1) / 2) * d), [f]));
    const angles = [0, 5, 12, 25, 40];
    const points = angles.map((deg) =>
      at(far * Math.cos((deg * Math.PI) / 180), 0, far * Math.sin((deg * Math.PI) / 180)),
    );
    const [levels] = pressures(line, points, [f]);
    angles.forEach((deg, i) => {
      const x = (Math.PI * f * d * Math.sin((deg * Math.PI) / 180)) / C;
      const want = x === 0 ? n : Math.abs(Math.sin(n * x) / Math.sin(x));
      expect(levels![i]! * far).toBeCloseTo(want, 5);
    });
  });

  it('a line of many near by: as loud as an endless one, pi / (d r) on the mean of its powers', () => {
    // sum of 1 / (r^2 + (n d)^2) over all n is pi / (d r) coth(pi r / d); powers, so that no pattern stands
    const [d, r] = [0.5, 2];
    const line = Array.from({ length: 1601 }, (_, i) => source(at(0, 0, (i - 800) * d), [500]));
    const [level] = pressures(line, [at(r)], [500], 'power')[0]!;
    // what lies beyond the ends: the integral of 1 / z^2 from there, at both
    const beyond = 2 / (d * 800.5 * d);
    const all = Math.PI / (d * r) / Math.tanh((Math.PI * r) / d);
    expect(level! ** 2).toBeCloseTo(all - beyond, 6);
  });

  it('an arc of sources is as loud at its centre as all of them together', () => {
    const f = [40, 500, 3000];
    const arc = Array.from({ length: 9 }, (_, i) => {
      const turn = ((i - 4) * 10 * Math.PI) / 180;
      return source(at(7 * Math.cos(turn), 7 * Math.sin(turn)), f);
    });
    for (const level of pressures(arc, [at(0)], f)) expect(level[0]).toBeCloseTo(9 / 7, 6);
  });

  it('over a ground that reflects, a source on it is twice as loud; one above it has its image below', () => {
    const f = [200];
    const ground = [0, 0, 0] as [number, number, number];
    expect(pressures([source(at(0), f)], [at(5)], f, 'coherent', { ground })[0]![0]).toBeCloseTo(2 / 5, 6);
    const [high] = pressures([source(at(0, 0, 3), f)], [at(4, 0, 0)], f, 'coherent', { ground });
    expect(high![0]).toBeCloseTo(2 / 5, 6);
    // a raked one: the image lies across it
    const image = mirrored(source(at(0, 0, 2), f), [0, 1, 0]);
    expect(image.position.x).toBeCloseTo(2, 12);
    expect(image.position.z).toBeCloseTo(0, 12);
  });
});

describe('turned sources', () => {
  it('radiate where they point: a piston by its Bessel form', () => {
    const f = [2000];
    const radiator: Radiator = { kind: 'piston', radiusM: 0.12 };
    const ka = (2 * Math.PI * 2000 * 0.12) / C;
    // pointing to the right and 20 degrees down; the point lies straight ahead of it, then 25 degrees to its side
    const aim = axesOf(90, -20);
    const s = [source(at(1, 2, 3), f, { yawDeg: 90, pitchDeg: -20, radiator })];
    const beside = (deg: number) => {
      const [c, d] = [4 * Math.cos((deg * Math.PI) / 180), 4 * Math.sin((deg * Math.PI) / 180)];
      return at(
        1 + c * aim.ahead.x + d * aim.left.x,
        2 + c * aim.ahead.y + d * aim.left.y,
        3 + c * aim.ahead.z + d * aim.left.z,
      );
    };
    const [level] = pressures(s, [beside(0), beside(25)], f);
    expect(level![0]).toBeCloseTo(1 / 4, 6);
    expect(level![1]).toBeCloseTo(Math.abs(pistonGain(ka, (25 * Math.PI) / 180)) / 4, 4);
  });
});

it('the first of some sources is heard by its way and its delay', () => {
  const pair = [
    { position: at(0), delayS: 0.02 },
    { position: at(3), delayS: 0.025 },
  ];
  expect(firstArrivalS(pair, at(10), C)).toBeCloseTo(0.025 + 7 / C, 12);
});

it('refuses what means nothing', () => {
  const one = source(at(0), [100]);
  expect(() => pressures(Array<FieldSource>(10_000).fill(one), [at(1)], [100])).toThrow(/number of sources/);
  expect(() => pressures([one], [at(NaN)], [100])).toThrow(/coordinate of a point/);
  expect(() => pressures([one], [at(1)], [0])).toThrow(/frequency in Hz/);
});
