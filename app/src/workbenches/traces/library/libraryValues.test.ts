import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { expect, it } from 'vitest';
import { onGrid } from '../../../services/gridCurves';
import { valuesOf } from './libraryValues';

const curve = (gain: number, deg: number, hasPhase = true): LibraryCurve => ({
  frequency: LIBRARY_GRID,
  re: LIBRARY_GRID.map(() => gain * Math.cos((deg * Math.PI) / 180)),
  im: LIBRARY_GRID.map(() => gain * Math.sin((deg * Math.PI) / 180)),
  coherence: LIBRARY_GRID.map(() => 1),
  hasPhase,
});

it('a difference is in dB over the other, and its phase within half a turn', () => {
  expect(valuesOf(curve(10, 0), 'Difference', curve(1, 0))[100]).toBeCloseTo(20, 9);
  expect(valuesOf(curve(1, 170), 'Phase difference', curve(1, -170))[100]).toBeCloseTo(-20, 9);
});

it('against nothing, or against what has no phase, there is no difference', () => {
  expect(valuesOf(curve(1, 0), 'Difference')[100]).toBeNaN();
  expect(valuesOf(curve(1, 0), 'Phase difference', curve(1, 0, false))[100]).toBeNaN();
  expect(valuesOf(curve(1, 0, false), 'Phase')[100]).toBeNaN();
});

it('a curve of part of the grid is not known outside it', () => {
  const part = (of: Float64Array) => of.slice(100, 200);
  const whole = curve(2, 0);
  const wide = onGrid({
    frequency: part(whole.frequency),
    re: part(whole.re),
    im: part(whole.im),
    coherence: part(whole.coherence),
    hasPhase: true,
  });
  expect([wide.re[99], wide.re[100], wide.re[199], wide.re[200]]).toEqual([NaN, 2, 2, NaN]);
});
