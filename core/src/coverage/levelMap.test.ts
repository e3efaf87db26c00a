import type { RadiatingModel } from '../directivity/index.js';
import { describe, expect, it } from 'vitest';
import { axesOf, type Point } from '../geometry/index.js';
import { weightingDb } from '../level/index.js';
import { signalPath } from '../path/index.js';
import { THIRDS } from './bands.js';
import {
  arrivalMap,
  levelMap,
  levelMapInSteps,
  mapFrequencies,
  pressureAtPoints,
  responseAtPoint,
  type CoverageChannel,
  type LevelMapRequest,
} from './levelMap.js';

const POINT_WAY = { radiator: { kind: 'point' } as const, ahead: 0, left: 0, up: 0, gainDb: 0, filters: [] };
/** Alike in all directions, from far below hearing to far above it. */
const MODEL: RadiatingModel = {
  name: 'Point',
  about: 'for tests',
  axis: {
    kind: 'filters',
    low: { frequency: 0.5, order: 1 },
    high: { frequency: 150_000, order: 1 },
    resonances: [],
  },
  radiation: { kind: 'ways', ways: [POINT_WAY] },
  largestDb: 120,
  sensitivityDb: 90,
};
const channel = (position: Point, path = {}, box = {}): CoverageChannel => ({
  id: `${position.x}`,
  model: MODEL,
  boxes: [{ position, axes: axesOf(0), delayMs: 0, inverted: false, ...box }],
  path: signalPath(48_000, path),
});
const at = (x: number, y = 0): Point => ({ x, y, z: 0 });
const map = (channels: CoverageChannel[], points: Point[], more: Partial<LevelMapRequest> = {}) => [
  ...levelMap({
    channels,
    points: Float64Array.from(points.flatMap((p) => [p.x, p.y, p.z])),
    band: { kind: 'frequency', centre: 1000 },
    how: 'coherent',
    signalDbfs: 0,
    speed: 340,
    air: null,
    ground: null,
    ...more,
  }),
];

describe('level at points', () => {
  it('a sine of full scale gives the largest level at 1 m, 6 dB less at twice the way', () => {
    const levels = map([channel(at(0))], [at(1), at(2)]);
    expect(levels[0]).toBeCloseTo(120, 3);
    expect(levels[1]).toBeCloseTo(120 - 20 * Math.log10(2), 3);
    expect(map([channel(at(0))], [at(1)], { signalDbfs: -20 })[0]).toBeCloseTo(100, 3);
  });

  it('pink noise gives a thirtieth of its power to a third of an octave, a tenth to an octave', () => {
    const third = map([channel(at(0))], [at(1)], { band: { kind: 'third', centre: 1000 } })[0]!;
    const octave = map([channel(at(0))], [at(1)], { band: { kind: 'octave', centre: 1000 } })[0]!;
    expect(third).toBeCloseTo(120 - 10 * Math.log10(30), 2);
    expect(octave).toBeCloseTo(110, 2);
  });

  it('A-weighted it is the sum of thirds, each weighted', () => {
    const want = 10 * Math.log10(THIRDS.reduce((sum, f) => sum + 10 ** (weightingDb('A', f) / 10), 0) / 30);
    expect(map([channel(at(0))], [at(1)], { band: { kind: 'A' } })[0]).toBeCloseTo(120 + want, 1);
  });

  it('gains, delays and polarity of channel and box count', () => {
    const [x, y] = [channel(at(0), { gainDb: -6 }), channel(at(0), { inverted: true, gainDb: -6 })];
    expect(map([x], [at(1)])[0]).toBeCloseTo(114, 3);
    expect(map([x, y], [at(1)])[0]).toBeLessThan(0);
    const late = channel(at(0), { gainDb: -6, delayS: 0.0005 });
    // half a period at 1 kHz: gone; as power 3 dB more
    expect(map([x, late], [at(1)])[0]).toBeLessThan(20);
    expect(map([x, late], [at(1)], { how: 'power' })[0]).toBeCloseTo(117.01, 2);
    const turned = channel(at(0), { gainDb: -6, delayS: 0.0005 }, { inverted: true });
    expect(map([x, turned], [at(1)])[0]).toBeCloseTo(120.02, 1);
  });

  it('in a third of an octave, what cancels at its middle does not cancel at its edges', () => {
    const pair = [channel(at(0)), channel(at(0), { delayS: 0.0005 })];
    const [middle] = map(pair, [at(1)]);
    const [third] = map(pair, [at(1)], { band: { kind: 'third', centre: 1000 } });
    expect(middle).toBeLessThan(40);
    // 2 (1 + cos wt) over the band, at its five frequencies
    const f = [-0.4, -0.2, 0, 0.2, 0.4].map((s) => 1000 * 10 ** (s / 10));
    const mean = f.reduce((sum, v) => sum + 2 * (1 + Math.cos(2 * Math.PI * v * 0.0005)), 0) / 5;
    expect(third).toBeCloseTo(120 - 10 * Math.log10(30) + 10 * Math.log10(mean), 2);
  });

  it('a filter of a channel counts as it is given at the frequencies of the map', () => {
    const band = { kind: 'third', centre: 1000 } as const;
    const f = mapFrequencies(band);
    expect(f).toHaveLength(5);
    // a delay of half a millisecond as a filter, and one of the path: the same
    const turn = f.map((v) => -2 * Math.PI * v * 0.0005);
    const filter = { re: turn.map(Math.cos), im: turn.map(Math.sin) };
    const [filtered, delayed] = [{ ...channel(at(0)), filter }, channel(at(0), { delayS: 0.0005 })];
    const other = channel(at(0.3));
    const [a, b] = [
      map([filtered, other], [at(2)], { band })[0]!,
      map([delayed, other], [at(2)], { band })[0]!,
    ];
    expect(a).toBeCloseTo(b, 9);
    expect(() =>
      map([{ ...filtered, filter: { re: turn.slice(1), im: turn.slice(1) } }], [at(2)], { band }),
    ).toThrow(/4 frequencies for 5/);
  });

  it('a first look with one frequency in each third has the same level where nothing cancels', () => {
    const all = map([channel(at(0))], [at(1), at(7)], { band: { kind: 'A' } });
    const first = map([channel(at(0))], [at(1), at(7)], { band: { kind: 'A' }, perThird: 1 });
    expect(first[0]).toBeCloseTo(all[0]!, 1);
    expect(first[1]).toBeCloseTo(all[1]!, 1);
  });

  it('box by box it tells how far it is, and ends with the same map', () => {
    const request: LevelMapRequest = {
      channels: [channel(at(0)), channel(at(3)), channel(at(5))],
      points: Float64Array.of(1, 2, 0, 4, 1, 0),
      ...{ band: { kind: 'A' }, how: 'power', signalDbfs: -20, speed: 340, air: null, ground: null },
    };
    const steps = levelMapInSteps(request);
    const shares: number[] = [];
    let end = steps.next();
    for (; !end.done; end = steps.next()) shares.push(end.value);
    expect(shares.map((v) => v.toFixed(2))).toEqual(['0.33', '0.67', '1.00']);
    expect(end.value).toEqual(levelMap(request));
  });

  it('nothing sounds without channels', () => {
    expect(map([], [at(1)])[0]).toBe(-Infinity);
  });
});

it('the response at a point is what the map has there, frequency by frequency', () => {
  const channels = [channel(at(0)), channel(at(1.7), { gainDb: -3, delayS: 0.002 })];
  const frequency = Float64Array.of(100, 340, 1000, 5000);
  const request = {
    channels,
    how: 'coherent',
    signalDbfs: -12,
    speed: 340,
    air: null,
    ground: null,
  } as const;
  const levels = responseAtPoint({ ...request, channels }, at(4, 2), frequency);
  frequency.forEach((centre, n) => {
    const [want] = map(channels, [at(4, 2)], { band: { kind: 'frequency', centre }, signalDbfs: -12 });
    expect(levels[n]).toBeCloseTo(want!, 9);
  });
});

it('arrivals count the delay of the channel and of the box', () => {
  const channels = [channel(at(0), { delayS: 0.01 }), channel(at(6), {}, { delayMs: 30 })];
  const points = Float64Array.of(8, 0, 0, -3, 0, 0);
  const [near, far] = arrivalMap(channels, points, 340);
  expect(near).toBeCloseTo(0.01 + 8 / 340, 12);
  expect(far).toBeCloseTo(0.01 + 3 / 340, 12);
});

describe('pressure at points', () => {
  const frequency = Float64Array.of(50, 400, 3000);
  const asked = { speed: 340, air: null, ground: null };

  it('is that of a point source: e^{-jkr} / r, its delay and polarity with it', () => {
    const one = channel(at(0), { delayS: 0.001, inverted: true });
    const { re, im } = pressureAtPoints([one], asked, Float64Array.of(5, 0, 0, 0, 8, 0), frequency);
    frequency.forEach((f, n) => {
      [5, 8].forEach((r, p) => {
        const turn = -2 * Math.PI * f * (r / 340 + 0.001) + Math.PI;
        const size = 10 ** (120 / 20) / r;
        // the model's own corners, far outside, turn it by 0.6 degrees at 50 Hz
        expect(
          Math.hypot(re[n]![p]! - size * Math.cos(turn), im[n]![p]! - size * Math.sin(turn)),
        ).toBeLessThan(0.025 * size);
      });
    });
  });

  it('of several is what the level at a point is made of', () => {
    const both = [channel(at(0)), channel(at(0, 3), { delayS: 0.0007, gainDb: -4 })];
    const { re, im } = pressureAtPoints(both, asked, Float64Array.of(4, 1, 0), frequency);
    const want = responseAtPoint(
      { channels: both, how: 'coherent', signalDbfs: 0, ...asked },
      { x: 4, y: 1, z: 0 },
      frequency,
    );
    frequency.forEach((_, n) =>
      expect(20 * Math.log10(Math.hypot(re[n]![0]!, im[n]![0]!))).toBeCloseTo(want[n]!, 9),
    );
  });
});
