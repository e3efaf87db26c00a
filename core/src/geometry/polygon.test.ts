import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  clipped,
  crossingSides,
  distanceToSides,
  integralOver,
  isWithin,
  signedArea,
} from './index.js';

const at = (x: number, y: number) => ({ x, y });
const square = [at(1, 1), at(5, 1), at(5, 4), at(1, 4)];
/** 6 x 6 with a corner of 4 x 4 missing: 20 square metres. */
const ell = [at(0, 0), at(6, 0), at(6, 2), at(2, 2), at(2, 6), at(0, 6)];

describe('an outline', () => {
  it('has the area of its rectangles, with the sign of its turn', () => {
    expect(signedArea(square)).toBe(12);
    expect(signedArea([...square].reverse())).toBe(-12);
    expect(areaOf(ell)).toBe(20);
    expect(boundsOf(ell)).toEqual({ least: at(0, 0), most: at(6, 6) });
    expect(() => boundsOf([])).toThrow(RangeError);
  });

  it('carries a plane: the integral is area times its height in the middle', () => {
    // middle of the rectangle at (3, 2.5)
    expect(integralOver(square, [2, 0.5, -1])).toBeCloseTo(12 * (2 + 1.5 - 2.5), 12);
    expect(integralOver([...square].reverse(), [2, 0.5, -1])).toBeCloseTo(12 * (2 + 1.5 - 2.5), 12);
    // the L as two rectangles: 6 x 2 around (3, 1), 2 x 4 around (1, 4)
    expect(integralOver(ell, [0, 1, 2])).toBeCloseTo(12 * (3 + 2) + 8 * (1 + 8), 12);
  });

  it('holds what lies in it, not what lies in its notch', () => {
    expect(isWithin(ell, at(1, 5))).toBe(true);
    expect(isWithin(ell, at(5, 1))).toBe(true);
    expect(isWithin(ell, at(4, 4))).toBe(false);
    expect(isWithin(ell, at(-1, 1))).toBe(false);
    expect(distanceToSides(ell, at(4, 4))).toBeCloseTo(2, 12);
    expect(distanceToSides(ell, at(2.5, 2.5))).toBeCloseTo(0.5, 12);
    expect(distanceToSides(ell, at(9, 6))).toBeCloseTo(5, 12); // 3, 4
  });

  it('is cut along an axis; both parts make the whole', () => {
    const low = clipped(ell, { axis: 'x', at: 1, side: 'below' });
    const high = clipped(ell, { axis: 'x', at: 1, side: 'above' });
    expect(areaOf(low)).toBeCloseTo(6, 12);
    expect(areaOf(low) + areaOf(high)).toBeCloseTo(20, 12);
    expect(clipped(ell, { axis: 'y', at: -1, side: 'below' })).toEqual([]);
  });

  it('tells which of its sides cross or touch', () => {
    expect(crossingSides(square)).toEqual([]);
    expect(crossingSides(ell)).toEqual([]);
    expect(crossingSides([at(0, 0), at(4, 4), at(4, 0), at(0, 4)])).toEqual([[0, 2]]);
    // a corner that touches the side across
    expect(crossingSides([at(0, 0), at(6, 0), at(6, 4), at(3, 0), at(0, 4)]).length).toBeGreaterThan(0);
  });
});
