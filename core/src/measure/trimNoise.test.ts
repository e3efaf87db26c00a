import { expect, it } from 'vitest';
import { whiteNoise, type RealArray } from '../signal/index.js';
import { trimNoise } from './index.js';

const rate = 48000;
const zero = 960;
const decay = (noise: number, seed = 1) => {
  const tail = whiteNoise(65536, seed);
  const floor = whiteNoise(65536, seed + 50);
  // 60 dB in 0.35 s
  return Float32Array.from({ length: 65536 }, (_, i) => {
    const t = (i - zero) / rate;
    return (t < 0 ? 0 : tail[i]! * 10 ** ((-3 * t) / 0.35)) + noise * floor[i]!;
  });
};
const energy = (x: RealArray, from: number, to: number) => {
  let sum = 0;
  for (let i = from; i < to; i++) sum += x[i]! ** 2;
  return sum;
};

it('takes the noise behind the decay away and leaves the decay', () => {
  const samples = decay(0.003);
  const {
    impulse: { samples: got },
    decayEnd,
  } = trimNoise({ samples, rate, zero });
  const at = (s: number) => zero + Math.round(s * rate);
  expect(energy(got, at(0), at(0.15)) / energy(samples, at(0), at(0.15))).toBeCloseTo(1, 4);
  expect(energy(got, at(0.8), 65536) / energy(samples, at(0.8), 65536)).toBeLessThan(1e-6);
  // the decay meets the noise where 10^(-3 t / 0.35) = 0.003: after 0.29 s
  expect(Math.abs(decayEnd.highS! - 0.294)).toBeLessThan(0.06);
});

it('brings a noisy response nearer to the clean one', () => {
  const clean = decay(0);
  const noisy = decay(0.003);
  const error = (x: RealArray) =>
    energy(
      Float32Array.from(x, (v, i) => v - clean[i]!),
      0,
      65536,
    );
  expect(
    10 * Math.log10(error(trimNoise({ samples: noisy, rate, zero }).impulse.samples) / error(noisy)),
  ).toBeLessThan(-4);
});

it('leaves a response without noise alone, and noise without a response', () => {
  const clean = decay(0);
  trimNoise({ samples: clean, rate, zero }).impulse.samples.forEach((v, i) =>
    expect(Math.abs(v - clean[i]!)).toBeLessThan(1e-5),
  );
  const noise = Float32Array.from(whiteNoise(65536, 9));
  const got = trimNoise({ samples: noise, rate, zero }).impulse.samples;
  expect(energy(got, 0, 65536) / energy(noise, 0, 65536)).toBeCloseTo(1, 3);
});
