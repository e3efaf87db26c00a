import { describe, expect, it } from 'vitest';
import {
  biquadSpectrum,
  butterworth,
  delayTrace,
  inverseRealFft,
  linkwitzRiley,
  whiteNoise,
  type Biquad,
  type ImpulseResponse,
} from '../signal/index.js';
import { travelDifference } from './travelDifference.js';

const RATE = 48000;
const SIZE = 1 << 16;
const ZERO = 960;

/** A loudspeaker heard directly after `samples`, with reflections (delay, gain) behind it and a noise floor. */
function heard(
  sections: Biquad[],
  samples: number,
  gain: number,
  reflections: [number, number][] = [],
  noise = 1e-6,
): ImpulseResponse {
  const own = biquadSpectrum(sections, SIZE);
  const out = new Float64Array(SIZE);
  for (const [delay, share] of [[0, 1] as [number, number], ...reflections]) {
    const part = inverseRealFft(delayTrace(own, ZERO + samples + delay));
    for (let i = 0; i < SIZE; i++) out[i] = out[i]! + gain * share * part[i]!;
  }
  const floor = whiteNoise(SIZE, 5);
  return { samples: Float32Array.from(out, (v, i) => v + noise * floor[i]!), rate: RATE, zero: ZERO };
}

const full = [...butterworth('highpass', 3, 62, RATE), ...butterworth('lowpass', 2, 17500, RATE)];
const sub = [
  ...butterworth('highpass', 4, 27, RATE),
  ...butterworth('lowpass', 2, 320, RATE),
  ...linkwitzRiley('lowpass', 4, 110, RATE),
];
const room: [number, number][] = [
  [83, 0.7],
  [171, -0.5],
  [240, 0.9],
  [610, 0.6],
];

describe.each([
  ['full range', full, { from: 63, to: 16000 }, 0.00003],
  ['subwoofer', sub, { from: 31, to: 100 }, 0.0005],
] as const)('%s', (_, sections, band, tolerance) => {
  it.each([131.3, 420.7, 1203.4])('heard %f samples later, amid reflections', (later) => {
    const near = heard([...sections], 60, 10);
    const far = heard([...sections], 60 + later, 0.3, room);
    expect(Math.abs(travelDifference(near, far, band)! - later / RATE)).toBeLessThan(tolerance);
  });
  it('does not depend on what the processor does to it', () => {
    const both = [...sections, ...butterworth('lowpass', 3, 4000, RATE)];
    const difference = travelDifference(heard(both, 260, -10), heard(both, 560, -0.3, room), band)!;
    expect(Math.abs(difference - 300 / RATE)).toBeLessThan(2 * tolerance);
  });
});

it('finds nothing where nothing arrived', () => {
  const noise = { samples: Float32Array.from(whiteNoise(SIZE, 2)), rate: RATE, zero: ZERO };
  expect(travelDifference(heard(full, 60, 10), noise, { from: 63, to: 16000 })).toBeNull();
});
