import { describe, expect, it } from 'vitest';
import { butterworth, filterBiquads, peaking, whiteNoise } from '../signal/index.js';
import { findArrival, findPolarity } from './index.js';

const rate = 48000;
const ZERO = 480;

/** A loudspeaker of minimum phase that is driven at time zero and stands `delayS` away. */
function heard(
  band: { from: number; to: number },
  { delayS = 0.009, sign = 1, noise = 0, echo = 0, seed = 1 } = {},
) {
  const impulse = new Float64Array(rate);
  const at = ZERO + Math.round(delayS * rate);
  impulse[at] = sign;
  if (echo) impulse[at + Math.round(0.011 * rate)] = -echo * sign;
  const filtered = filterBiquads(impulse, [
    ...butterworth('highpass', 4, band.from, rate),
    ...butterworth('lowpass', 4, band.to, rate),
    peaking((band.from * band.to) ** 0.5, 3, 1, rate),
  ]);
  const peak = filtered.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
  const hiss = whiteNoise(rate, seed);
  const samples = Float32Array.from(filtered, (v, i) => v + noise * peak * hiss[i]!);
  return { rate, zero: ZERO, samples };
}

const FULL = { from: 60, to: 15000 };
const SUB = { from: 28, to: 110 };
const found = (impulse: ReturnType<typeof heard>, band: typeof FULL) =>
  findPolarity(impulse, findArrival(impulse)!.onsetS, band)!;

describe('polarity of a loudspeaker of minimum phase', () => {
  it.each([
    ['full range', FULL, 1],
    ['full range, reversed', FULL, -1],
    ['subwoofer', SUB, 1],
    ['subwoofer, reversed', SUB, -1],
  ])('%s', (_, band, sign) => {
    const { reversed, certainty } = found(heard(band, { sign }), band);
    expect(reversed).toBe(sign < 0);
    expect(certainty).toBeGreaterThan(1.1);
  });

  it('knows when the sound arrives, without the group delay of the loudspeaker itself', () => {
    expect(found(heard(FULL, { delayS: 0.0125 }), FULL).arrivalS).toBeCloseTo(0.0125, 4);
    // 4th-order slopes at 28 and 110 Hz delay a subwoofer by many milliseconds; its equivalent is delayed alike
    expect(Math.abs(found(heard(SUB, { delayS: 0.0125 }), SUB).arrivalS - 0.0125)).toBeLessThan(0.001);
  });

  it('is found beside noise and with a wall behind', () => {
    for (const seed of [1, 2, 3, 4])
      for (const sign of [1, -1])
        expect(found(heard(FULL, { sign, noise: 0.02, echo: 0.6, seed }), FULL).reversed).toBe(sign < 0);
  });

  it('turns with the response, the arrival stays', () => {
    const [up, down] = [1, -1].map((sign) => found(heard(SUB, { sign, echo: 0.4 }), SUB));
    expect(up!.reversed).not.toBe(down!.reversed);
    expect(up!.arrivalS).toBeCloseTo(down!.arrivalS, 6);
    expect(up!.certainty).toBeCloseTo(down!.certainty, 4);
  });

  it('is not known of silence', () => {
    expect(findPolarity({ rate, zero: ZERO, samples: new Float32Array(rate) }, 0.01, FULL)).toBeNull();
  });
});
