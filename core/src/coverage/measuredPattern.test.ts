import { expect, it } from 'vitest';
import { axesOf } from '../geometry/index.js';
import { boxesOf, gradientDelayMs, type Group } from '../place/index.js';
import { measuredPattern, type MeasuredBox } from './measuredPattern.js';

const C = 343;
const FREQUENCY = Float64Array.of(30, 50, 80);
const flat = (re: number, im = 0) => ({ re: FREQUENCY.map(() => re), im: FREQUENCY.map(() => im) });
const box = (over: Partial<MeasuredBox> = {}): MeasuredBox => ({
  frequency: FREQUENCY,
  ahead: flat(1),
  behind: flat(1),
  ...over,
});
const gradient: Group = { kind: 'gradient', spacingM: 0.9, rearDelayMs: gradientDelayMs(0.9, 180, C) };
const boxes = (group: Group | null, aimDeg: number) =>
  boxesOf({ position: { x: 3, y: 4, z: 1 }, aimDeg, pitchDeg: 0, rollDeg: 0, group });
const DEG = Math.PI / 180;

it('boxes alike ahead and behind make the gradient pair of the closed form', () => {
  const { polars, aheadDb } = measuredPattern(boxes(gradient, 50), 50, box(), C);
  const form = (f: number, deg: number) =>
    Math.abs(2 * Math.sin((Math.PI * f * 0.9 * (Math.cos(deg * DEG) + 1)) / C));
  FREQUENCY.forEach((f, n) => {
    for (const deg of [-150, -90, 0, 40, 120])
      expect(polars[n]![180 + deg]!).toBeCloseTo(20 * Math.log10(form(f, deg) / form(f, 0)), 6);
    expect(aheadDb[n]).toBeCloseTo(20 * Math.log10(form(f, 0)), 9);
  });
});

it('one box that is silent behind is a cardioid, wherever it aims', () => {
  const { polars, frontToBackDb } = measuredPattern(boxes(null, -70), -70, box({ behind: flat(0) }), C);
  for (const db of polars)
    for (const deg of [-120, -60, 30, 90])
      expect(db[180 + deg]!).toBeCloseTo(20 * Math.log10((1 + Math.cos(deg * DEG)) / 2), 6);
  expect([...frontToBackDb]).toEqual([80, 80, 80]);
});

it('what a box gives behind itself is left in the pattern: 6 dB less is what a pair shows there', () => {
  // two boxes back to back at one place, the rear one 6 dB down ahead and turned round: a + b g ahead, b + a g behind
  const at = { position: { x: 0, y: 0, z: 0 }, delayMs: 0, inverted: false };
  const pair = [
    { ...at, axes: axesOf(0) },
    { ...at, axes: axesOf(180), inverted: true },
  ];
  const { frontToBackDb } = measuredPattern(pair, 0, box({ behind: flat(0.25, 0.25) }), C);
  // 1 - b ahead, b - 1 behind: as strong, whatever b is
  for (const db of frontToBackDb) expect(db).toBeCloseTo(0, 9);
  const alone = measuredPattern([pair[0]!], 0, box({ behind: flat(0.3, 0.4) }), C);
  for (const db of alone.frontToBackDb) expect(db).toBeCloseTo(20 * Math.log10(2), 9);
});

it('refuses curves that do not belong together, and a speed that is none', () => {
  const short = { re: Float64Array.of(1), im: Float64Array.of(0) };
  expect(() => measuredPattern(boxes(null, 0), 0, box({ behind: short }), C)).toThrow(/other frequencies/);
  expect(() => measuredPattern(boxes(null, 0), 0, box(), NaN)).toThrow(RangeError);
});
