import { describe, expect, it } from 'vitest';
import { axesOf } from '../geometry/index.js';
import { signalPath } from '../path/index.js';
import { boxesOf, endFireStepMs, gradientDelayMs, GRADIENT_PATTERNS, type Group } from '../place/index.js';
import { groupPattern } from './groupPattern.js';
import { POINT_MODEL } from './pointModelForTest.js';

const C = 343;
const FREQUENCY = Float64Array.of(30, 50, 80);
const patternOf = (group: Group, aimDeg = 0) =>
  groupPattern(
    {
      id: 'g',
      model: POINT_MODEL,
      path: signalPath(48_000),
      boxes: boxesOf({ position: { x: 3, y: 4, z: 1 }, aimDeg, pitchDeg: 0, rollDeg: 0, group }),
    },
    aimDeg,
    FREQUENCY,
    C,
  );
const gradient = (spacingM: number, nullDeg: number): Group => ({
  kind: 'gradient',
  spacingM,
  rearDelayMs: gradientDelayMs(spacingM, nullDeg, C),
});

describe('a gradient pair', () => {
  it.each(GRADIENT_PATTERNS)('as a $name is silent where it should be', ({ nullDeg }) => {
    const { polars } = patternOf(gradient(0.9, nullDeg));
    for (const db of polars) {
      const from = Math.min(...[Math.floor(nullDeg), Math.ceil(nullDeg)].map((deg) => db[180 + deg]!));
      expect(from).toBeLessThan(-35);
      // alike to both sides
      expect(db[180 + 70]).toBeCloseTo(db[180 - 70]!, 1);
    }
  });

  it('follows its closed form: |sin(k (d cos a + c t) / 2)| against the front', () => {
    const [d, nullDeg] = [0.9, 125];
    const t = gradientDelayMs(d, nullDeg, C) / 1000;
    const { polars, aheadDb } = patternOf(gradient(d, nullDeg), 37);
    const form = (f: number, deg: number) =>
      Math.abs(2 * Math.sin((Math.PI * f * (d * Math.cos((deg * Math.PI) / 180) + C * t)) / C));
    FREQUENCY.forEach((f, n) => {
      for (const deg of [0, 40, 90, 150])
        expect(polars[n]![180 + deg]!).toBeCloseTo(20 * Math.log10(form(f, deg) / form(f, 0)), 1);
      expect(aheadDb[n]).toBeCloseTo(20 * Math.log10(form(f, 0)), 2);
    });
  });

  it('delays: a cardioid waits for its spacing, a figure of eight not at all', () => {
    expect(gradientDelayMs(0.9, 180, C)).toBeCloseTo(900 / C, 12);
    expect(gradientDelayMs(0.9, 90, C)).toBeCloseTo(0, 12);
    expect(() => gradientDelayMs(0.9, 60, C)).toThrow(RangeError);
  });
});

it('end-fire adds up ahead whatever the frequency, and least where its boxes part by whole turns', () => {
  const group: Group = { kind: 'end-fire', count: 4, spacingM: 1.2, stepMs: endFireStepMs(1.2, C) };
  const { aheadDb, frontToBackDb } = patternOf(group);
  FREQUENCY.forEach((f, n) => {
    expect(aheadDb[n]).toBeCloseTo(20 * Math.log10(4), 2);
    // behind, each box is later than the one before by twice the way
    const x = (2 * Math.PI * f * 1.2) / C;
    const behind = Math.abs(Math.sin(4 * x) / Math.sin(x)) / 4;
    expect(frontToBackDb[n]).toBeCloseTo(-20 * Math.log10(behind), 1);
  });
});

it('one box is what it is', () => {
  const { polars, aheadDb } = groupPattern(
    {
      id: 'g',
      model: POINT_MODEL,
      path: signalPath(48_000),
      boxes: [{ position: { x: 0, y: 0, z: 0 }, axes: axesOf(0), delayMs: 0, inverted: false }],
    },
    0,
    FREQUENCY,
    C,
  );
  expect(aheadDb[1]).toBeCloseTo(0, 9);
  expect(polars[1]!.every((v) => Math.abs(v) < 1e-6)).toBe(true);
});

it('one box that aims somewhere is what it is alone, wherever it aims', () => {
  const way = {
    radiator: { kind: 'piston' as const, radiusM: 0.4 },
    ahead: 0,
    left: 0,
    up: 0,
    gainDb: 0,
    filters: [],
  };
  const { aheadDb, polars } = groupPattern(
    {
      id: 'g',
      model: { ...POINT_MODEL, radiation: { kind: 'ways', ways: [way] } },
      path: signalPath(48_000),
      boxes: [{ position: { x: 0, y: 0, z: 0 }, axes: axesOf(120), delayMs: 0, inverted: false }],
    },
    120,
    Float64Array.of(500, 1000),
    C,
  );
  for (const db of aheadDb) expect(db).toBeCloseTo(0, 6);
  expect(polars[1]![180 + 45]).toBeLessThan(-10);
});
