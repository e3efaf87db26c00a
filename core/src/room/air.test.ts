import { expect, it } from 'vitest';
import { airAbsorption, octaveShares, speedOfSound } from './index.js';

it('gives the speed of sound at 0 and 20 degrees', () => {
  expect(speedOfSound(0)).toBeCloseTo(331.3, 6);
  expect(speedOfSound(20)).toBeCloseTo(343.2, 1);
});

// ISO 9613-1:1993, table 1, 20 degrees, 50 % and 101.325 kPa, in dB per km; printed to three digits at exact midbands
it.each([
  [62.5, 0.123],
  [125, 0.445],
  [250, 1.32],
  [500, 2.73],
  [1000, 4.66],
  [2000, 9.86],
  [4000, 29.4],
  [8000, 104],
])('absorbs as tabulated at %f Hz', (frequency, dbPerKm) => {
  const exact = 1000 * 10 ** ((3 * Math.round(Math.log2(frequency / 1000))) / 10);
  const got = 1000 * airAbsorption(exact, { temperatureC: 20, relativeHumidityPercent: 50 });
  expect(Math.abs(got / dbPerKm - 1)).toBeLessThan(0.01);
});

it('shares octaves so that the shares sum to one', () => {
  const out = new Float64Array(8);
  for (const f of [0, 10, 63, 100, 1000, 5600, 24000]) {
    expect(octaveShares(f, out).reduce((a, b) => a + b)).toBeCloseTo(1, 12);
  }
  expect(octaveShares(1008, out)[4]).toBeCloseTo(1, 3);
});
