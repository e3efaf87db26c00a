import { describe, expect, it } from 'vitest';
import { disturbedShare, echoCriterion, ECHO_SIGNALS, type EchoSignal } from './index.js';

const RATE = 16_000;
const ONSET = 160;

/** A direct sound of 1 and an echo of it. */
function withEcho(laterS: number, gain: number): Float64Array {
  const p = new Float64Array(RATE / 2);
  p[ONSET] = 1;
  p[ONSET + Math.round(laterS * RATE)] = gain;
  return p;
}

describe.each(Object.keys(ECHO_SIGNALS) as EchoSignal[])('%s', (signal) => {
  const { exponent: n, withinS } = ECHO_SIGNALS[signal];
  it.each([
    [0.05, 1],
    [0.08, 0.5],
    [0.12, 0.25],
  ])('an echo after %f s of %f: the centre of |p|^n jumps by its share of the way', (laterS, gain) => {
    const found = echoCriterion(withEcho(laterS, gain), RATE, ONSET, signal);
    // two pulses alike but for their size: the centre goes from that of the first to D g^n / (1 + g^n)
    const jump = (laterS * gain ** n) / (1 + gain ** n) / withinS;
    expect(found.largest / jump).toBeGreaterThan(0.9);
    expect(found.largest / jump).toBeLessThan(1.1);
    expect(found.atS).toBeGreaterThan(laterS - 0.002);
    expect(found.atS).toBeLessThan(laterS + withinS + 0.002);
  });

  it('nothing but the direct sound echoes not, nor does what dies away evenly', () => {
    const alone = withEcho(0.05, 0);
    expect(echoCriterion(alone, RATE, ONSET, signal).largest).toBeLessThan(0.5);
    // |p| = exp(-a t): the centre goes towards 1 / (n a), never faster than half of the time that goes by
    const even = new Float64Array(RATE);
    for (let i = ONSET; i < RATE; i++)
      even[i] = (Math.sin(i * i * 0.37) > 0 ? 1 : -1) * Math.exp((-(i - ONSET) / RATE) * 7);
    expect(echoCriterion(even, RATE, ONSET, signal).largest).toBeLessThan(0.7);
  });

  it('disturbs one in ten and one in two where that was found', () => {
    const { tenth, half } = ECHO_SIGNALS[signal];
    expect(disturbedShare(tenth, signal)).toBeCloseTo(0.1, 12);
    expect(disturbedShare(half, signal)).toBeCloseTo(0.5, 12);
    expect(disturbedShare(0, signal)).toBe(0);
    expect(disturbedShare(9, signal)).toBe(1);
  });
});

it('refuses a response that ends before it could echo, and samples that are none', () => {
  expect(() => echoCriterion(new Float64Array(200), RATE, 160, 'speech')).toThrow(/after the direct sound/);
  const p = withEcho(0.05, 1);
  p[300] = NaN;
  expect(() => echoCriterion(p, RATE, ONSET, 'speech')).toThrow(/finite/);
});
