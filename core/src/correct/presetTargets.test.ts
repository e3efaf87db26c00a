import { targetCurve } from './index.js';
import { describe, expect, it } from 'vitest';
import { READY_TARGETS } from './presetTargets.js';

const hz = (text: string) => Number.parseFloat(text) * (text.includes('kHz') ? 1000 : 1);
const db = (text: string) => Number.parseFloat(text.replace('−', '-'));
const named = (name: string) => READY_TARGETS.find((t) => t.name === name)!;
const levelAt = (name: string, f: number) => targetCurve(named(name).target.handles, Float64Array.of(f))[0]!;

describe('ready targets', () => {
  it.each(READY_TARGETS)('$name is what its numbers say: $about', ({ name, about }) => {
    const points = [...about.matchAll(/([+−]?[\d.]+)(?: dB)? at ([\d.]+ k?Hz)/g)];
    for (const [, level, at] of points) expect(levelAt(name, hz(at!)), at).toBeCloseTo(db(level!), 6);
  });

  it('the steady fall is one slope', () => {
    for (const f of [30, 60, 250, 1000, 8000])
      expect(
        Math.abs(levelAt('Steady fall', 2 * f) - levelAt('Steady fall', f) + 0.8),
        `${f} Hz`,
      ).toBeLessThan(0.02);
  });

  it('the warm hall is flat where it says so', () => {
    for (const f of [300, 700, 1500, 2000]) expect(Math.abs(levelAt('Warm hall', f))).toBeLessThan(0.3);
    for (const f of [25, 40, 75]) expect(levelAt('Warm hall', f)).toBeGreaterThan(5.4);
  });

  it('have names of their own, and keep the loudspeakers’ own ends', () => {
    expect(new Set(READY_TARGETS.map((t) => t.name)).size).toBe(READY_TARGETS.length);
    for (const { target } of READY_TARGETS)
      expect(target).toMatchObject({
        lowExtensionHz: null,
        highExtensionHz: null,
        lowLiftDb: 0,
        highTiltDb: 0,
      });
  });
});
