import { describe, expect, it } from 'vitest';
import { indexOfMatrix, MODULATION_HZ } from '../acoustics/index.js';
import type { Air } from '../room/index.js';
import {
  BIN_S,
  energyFigures,
  energyOverTime,
  figuresOf,
  heardAt,
  mirroredArrivals,
  sceneOf,
  speechIndexOf,
  traceRays,
  type HeardRequest,
} from './index.js';
import { boxFaces } from './roomsForTest.js';

/** Energy that dies away from its first moment, by 60 dB in T: what each bin holds of it, exactly. */
function decaying(seconds: number, lengthS: number): Float64Array {
  const k = (6 * Math.LN10) / seconds;
  return Float64Array.from(
    { length: Math.round(lengthS / BIN_S) },
    (_, b) => Math.exp(-k * b * BIN_S) - Math.exp(-k * (b + 1) * BIN_S),
  );
}

describe.each([0.4, 1.2, 2.5])('a decay of %f s', (seconds) => {
  const energy = decaying(seconds, 3 * seconds);
  const figures = energyFigures(
    energy,
    energy.map((e) => 0.3 * e),
  );
  const k = (6 * Math.LN10) / seconds;
  it('has its times', () => {
    for (const time of ['edt', 't20', 't30'] as const) expect(figures[time]).toBeCloseTo(seconds, 3);
  });
  it('has the clarity, definition and centre of an exponential decay', () => {
    expect(figures.c80).toBeCloseTo(10 * Math.log10(Math.exp(0.08 * k) - 1), 3);
    expect(figures.c50).toBeCloseTo(10 * Math.log10(Math.exp(0.05 * k) - 1), 3);
    expect(figures.d50).toBeCloseTo(1 - Math.exp(-0.05 * k), 6);
    expect(Math.abs(figures.ts - 1 / k)).toBeLessThan(1e-4);
  });
  it('is as strong as all its energy, against a source 10 m away in the open', () => {
    expect(figures.g).toBeCloseTo(20, 3);
  });
  it('is lateral from 5 to 80 ms over everything up to 80 ms', () => {
    const part = (from: number, to: number) => Math.exp(-from * k) - Math.exp(-to * k);
    expect(figures.lf).toBeCloseTo((0.3 * part(0.005, 0.08)) / part(0, 0.08), 6);
  });
});

it('a response that ends too early tells no time', () => {
  const { edt, t20, t30 } = energyFigures(decaying(2, 0.9), decaying(2, 0.9));
  expect(edt).not.toBeNaN();
  expect(t20).toBeNaN();
  expect(t30).toBeNaN();
});

it('nothing that arrives has no figures', () => {
  const nothing = new Float64Array(100);
  expect(Object.values(energyFigures(nothing, nothing)).every(Number.isNaN)).toBe(true);
  expect(() =>
    energyFigures(
      nothing.map(() => NaN),
      nothing,
    ),
  ).toThrow(RangeError);
});

const air: Air = { temperatureC: 20, relativeHumidityPercent: 50 };
const lateral = { x: 0, y: 1, z: 0 };
const ask = (faces: HeardRequest['faces'], over: Partial<HeardRequest> = {}): HeardRequest => ({
  faces,
  source: { position: { x: 2, y: 2, z: 1.5 }, emission: null },
  receiver: { position: { x: 7, y: 5, z: 1.5 }, lateral },
  mirrored: 2,
  air,
  ...over,
});

/** Rays and mirrored ways of a request together. */
function heard(request: HeardRequest, rays: number, lengthS: number) {
  const group = traceRays(sceneOf(request.faces), {
    source: request.source,
    receivers: [request.receiver],
    rays,
    lengthS,
    mirrored: request.mirrored,
    speed: 343.2,
    seed: 4,
    group: 0,
  });
  return heardAt(request, mirroredArrivals(request, lengthS), [group], 0);
}

it('where everything is swallowed only the direct sound arrives: to 0.01 dB by distance and air', () => {
  const dry: Air = { temperatureC: 20, relativeHumidityPercent: 50 };
  const response = heard(ask(boxFaces({ x: 12, y: 9, z: 4 }, 1, 0.5), { air: dry }), 500, 0.2);
  expect(response.arrivals).toHaveLength(1);
  const figures = figuresOf(response);
  const distance = Math.hypot(5, 3);
  // at 63 Hz the air swallows next to nothing; ISO 9613-1 gives 105 dB per km at 8 kHz, 20 degrees and 50 %
  expect(Math.abs(figures[0]!.g - (20 - 20 * Math.log10(distance)))).toBeLessThan(0.01);
  expect(Math.abs(figures[7]!.g - (20 - 20 * Math.log10(distance) - 0.105 * distance))).toBeLessThan(0.02);
  expect(figures[4]!.c80).toBe(Infinity);
  expect(figures[4]!.d50).toBe(1);
  expect(speechIndexOf(response)).toBeGreaterThan(0.99);
});

it('a floor that mirrors all but a tenth: the second arrival is where and as loud as its image', () => {
  const request = ask(boxFaces({ x: 12, y: 9, z: 4 }, [1, 1, 1, 1, 0.1, 1], 0));
  const [, second, third] = heard(request, 200, 0.2).arrivals;
  const distance = Math.hypot(5, 3, 3);
  expect(third).toBeUndefined();
  expect(second!.distance).toBeCloseTo(distance, 9);
  expect(second!.laterS).toBeCloseTo((distance - Math.hypot(5, 3)) / (331.3 * Math.sqrt(1 + 20 / 273.15)), 9);
  expect(second!.energy[0]! / (0.9 / distance ** 2)).toBeCloseTo(1, 3);
  expect(second!.going.z).toBeCloseTo(1.5 / Math.hypot(2.5, 1.5, 1.5), 6);
  expect(second!.points[0]!.z).toBeCloseTo(0, 9);
});

it('a beam leaves out what it does not send', () => {
  const request = ask(boxFaces({ x: 12, y: 9, z: 4 }, 1, 0.5), {
    source: {
      position: { x: 2, y: 2, z: 1.5 },
      // half the energy, and that towards x alone
      emission: (x, _y, _z, out) => void out.fill(x > 0 ? 0.5 : 0),
    },
  });
  expect(figuresOf(heard(request, 200, 0.2))[0]!.g).toBeCloseTo(20 - 10 * Math.log10(2 * 34), 2);
});

it('speech in a decay without noise: the index of its closed modulation transfer', () => {
  const k = (6 * Math.LN10) / 1.5;
  const energy = decaying(1.5, 4);
  const response = {
    directS: 0,
    arrivals: [],
    bins: energy.length,
    energy: Float64Array.from(Array.from({ length: 8 }, () => [...energy]).flat()),
    lateral: new Float64Array(8 * energy.length),
    counts: new Float64Array(energy.length),
    axis: lateral,
    directions: null,
  };
  const row = MODULATION_HZ.map((f) => 1 / Math.hypot(1, (2 * Math.PI * f) / k));
  expect(speechIndexOf(response)).toBeCloseTo(indexOfMatrix(Array.from({ length: 7 }, () => row)), 3);
  expect(energyOverTime(response, 3)).toEqual(energy);
});
