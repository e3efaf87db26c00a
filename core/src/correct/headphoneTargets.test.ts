import { describe, expect, it } from 'vitest';
import { HEADPHONE_TARGETS, targetCurve } from './index.js';

const levelOf = (index: number, frequency: number) =>
  targetCurve(HEADPHONE_TARGETS[index]!.target.handles, Float64Array.of(frequency))[0]!;

describe('targets of headphones', () => {
  it('are the eardrum over a diffuse and a free field: alike below 400 Hz, some 15 dB near 3 kHz', () => {
    for (const f of [100, 200, 400]) expect(levelOf(0, f)).toBeCloseTo(levelOf(1, f), 6);
    expect(levelOf(0, 3150)).toBe(15.7);
    expect(levelOf(1, 2500)).toBe(15.7);
    expect(levelOf(0, 8000) - levelOf(1, 8000)).toBeGreaterThan(10); // a single direction has the notch of the ear
  });

  it('are asked for as they stand, without a loudspeaker’s roll-off', () => {
    for (const { target } of HEADPHONE_TARGETS) expect(target.keepsRollOff).toBe(false);
  });
});
