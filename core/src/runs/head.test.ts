import { describe, expect, it } from 'vitest';
import { sphereGain } from '../directivity/index.js';
import { OCTAVES } from '../room/index.js';
import { BIN_S, SECTORS, sectorOf, STRETCHES_S, type Heard } from '../tracing/index.js';
import { ambisonicsOf, earResponses, earsOf } from './index.js';

const size = ({ re, im }: { re: number; im: number }) => Math.hypot(re, im);

describe('a rigid sphere in a plane wave', () => {
  it('is not there for waves that are long beside it', () => {
    for (const angle of [0, 1, 2, Math.PI]) expect(size(sphereGain(0.01)(angle))).toBeCloseTo(1, 3);
  });
  it('at its front end doubles what is short, and shades what lies behind', () => {
    expect(size(sphereGain(40)(0))).toBeCloseTo(2, 1);
    expect(size(sphereGain(20)((150 * Math.PI) / 180))).toBeLessThan(0.5);
    // all around meets again right behind it
    expect(size(sphereGain(20)(Math.PI))).toBeGreaterThan(2 * size(sphereGain(20)((165 * Math.PI) / 180)));
  });
  it('for small ones is 1 + 3/2 j k r cos of the angle, to first order', () => {
    const kr = 0.05;
    const { re, im } = sphereGain(kr)(0.6);
    expect(re).toBeCloseTo(1, 2);
    expect(im).toBeCloseTo(1.5 * kr * Math.cos(0.6), 3);
  });
});

/** A single way that comes from an azimuth, for one who looks along x. */
const arriving = (fromDeg: number): Heard => {
  const a = (fromDeg * Math.PI) / 180;
  return {
    directS: 0.01,
    arrivals: [
      {
        laterS: 0,
        distance: 1,
        energy: new Float64Array(8).fill(1),
        going: { x: -Math.cos(a), y: -Math.sin(a), z: 0 },
        faces: [],
        points: [],
      },
    ],
    bins: 100,
    energy: new Float64Array(800),
    lateral: new Float64Array(800),
    counts: new Float64Array(100),
    axis: { x: 0, y: 1, z: 0 },
    directions: null,
  };
};
const request = { rate: 48_000, volume: 200, speed: 343, seed: 1 };
const heard = (fromDeg: number) => {
  const { channels, zero } = earResponses(arriving(fromDeg), request, earsOf(0));
  const at = (c: Float64Array) =>
    (c.reduce((best, v, i) => (Math.abs(v) > Math.abs(c[best]!) ? i : best), 0) - zero) / 48_000;
  const energy = (c: Float64Array) => c.reduce((s, v) => s + v * v, 0);
  const [left, right] = channels as [Float64Array, Float64Array];
  return { leftS: at(left), rightS: at(right), louderDb: 10 * Math.log10(energy(left) / energy(right)) };
};

describe('two ears', () => {
  it('hear what comes from ahead alike', () => {
    const { leftS, rightS, louderDb } = heard(0);
    expect(leftS).toBe(rightS);
    expect(louderDb).toBeCloseTo(0, 9);
  });
  it('hear what comes from the left sooner and louder with the left one', () => {
    const { leftS, rightS, louderDb } = heard(90);
    // 10 and 170 degrees off the ears: r / c (cos 10 + 80 degrees)
    const later = (0.0875 / 343) * (Math.cos((10 * Math.PI) / 180) + (80 * Math.PI) / 180);
    expect(rightS - leftS).toBeCloseTo(later, 4);
    expect(louderDb).toBeGreaterThan(6);
  });
  it('are mirror images of each other', () => {
    const [a, b] = [heard(50), heard(-50)];
    expect(a.leftS).toBeCloseTo(b.rightS, 6);
    expect(a.louderDb).toBeCloseTo(-b.louderDb, 6);
  });
  it('hear a diffuse field alike, but not the same', () => {
    const diffuse = arriving(0);
    diffuse.arrivals = [];
    OCTAVES.forEach((_, o) => {
      for (let b = 0; b < 100; b++) diffuse.energy[o * 100 + b] = Math.exp((-7 * b * BIN_S) / 0.1);
    });
    const { channels } = earResponses(diffuse, { ...request, volume: 20 }, earsOf(0));
    const [left, right] = channels as [Float64Array, Float64Array];
    const product = (a: Float64Array, b: Float64Array) => a.reduce((s, v, i) => s + v * b[i]!, 0);
    const [l, r] = [product(left, left), product(right, right)];
    expect(Math.abs(10 * Math.log10(l / r))).toBeLessThan(2);
    expect(Math.abs(product(left, right)) / Math.sqrt(l * r)).toBeLessThan(0.7);
  });
});

describe('first-order ambisonics', () => {
  const amplitudes = (fromDeg: number, facingDeg: number) => {
    const { channels, zero } = earResponses(
      arriving(fromDeg),
      request,
      ambisonicsOf((facingDeg * Math.PI) / 180),
    );
    const [w] = channels;
    const largest = w!.reduce((best, v, i) => (Math.abs(v) > Math.abs(w![best]!) ? i : best), 0);
    expect(Math.abs(largest - zero)).toBeLessThanOrEqual(1);
    return channels.map((c) => c[largest]! / w![largest]!);
  };
  it('tell where a wave comes from, against where one looks', () => {
    for (const [from, facing] of [
      [0, 0],
      [90, 0],
      [200, 0],
      [90, 90],
      [30, -45],
    ] as const) {
      const off = ((from - facing) * Math.PI) / 180;
      const [w, y, z, x] = amplitudes(from, facing);
      expect(w).toBe(1);
      expect(y).toBeCloseTo(Math.sin(off), 9);
      expect(z).toBeCloseTo(0, 9);
      expect(x).toBeCloseTo(Math.cos(off), 9);
    }
  });
});

describe('what rays brought', () => {
  /** All of it from one part of the directions, the one just left of x and a little up. */
  const fromOnePart = (): Heard => {
    const directions = new Float64Array(STRETCHES_S.length * SECTORS);
    const sector = sectorOf(0.8, 0.3, 0.4);
    STRETCHES_S.forEach((_, s) => (directions[s * SECTORS + sector] = 1));
    const energy = new Float64Array(800).fill(1e-3);
    return { ...arriving(0), arrivals: [], energy, counts: new Float64Array(100).fill(1), directions };
  };
  const power = (of: Heard) => {
    const { channels } = earResponses(of, request, ambisonicsOf(0));
    return channels.map((c) => c.reduce((s, v) => s + v * v, 0));
  };
  it('comes from where it came from, as far as that was kept', () => {
    const [w, y, z, x] = power(fromOnePart());
    // its middle: 22.5 degrees to the left; the mean of cos^2 over an eighth of a turn is 1/2 + 1/pi
    const round = 1 - z! / w!;
    expect(x! / w!).toBeCloseTo(round * (0.5 + 1 / Math.PI), 1);
    expect(y! / w!).toBeCloseTo(round * (0.5 - 1 / Math.PI), 1);
  });
  it('comes from anywhere alike where it was not: a third along each axis', () => {
    const [w, ...eights] = power({ ...fromOnePart(), directions: null });
    for (const eight of eights) expect(eight / w!).toBeCloseTo(1 / 3, 1);
  });
});
