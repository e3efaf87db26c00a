import { expect, it } from 'vitest';
import { addImpulse } from '../room/index.js';
import { realFft } from '../signal/index.js';
import { fieldPulses } from './fieldPulses.js';

const bins = 1000;
const rate = 8000;
const size = 8192;
const even = { bins, energy: new Float64Array(8 * bins).fill(1e-3), directS: 0.02 };
const request = { volume: 60, speed: 343, middle: { x: 3, y: 2, z: 1.3 } };
const at = (x: number, seed: number) => {
  const out = [new Float64Array(size)];
  const receiver = { x, y: 2.2, z: 1.2 };
  fieldPulses(even, { ...request, seed, receiver }, (atS, gains) =>
    addImpulse(out, atS * rate, gains.subarray(0, 1)),
  );
  return out[0]!;
};

it('has the energy that rays brought, within half a decibel', () => {
  let sum = 0;
  let pulses = 0;
  const receiver = { x: 4, y: 3, z: 1 };
  fieldPulses(even, { ...request, seed: 3, receiver }, (atS, gains) => {
    expect(atS).toBeGreaterThanOrEqual(even.directS);
    sum += gains[4]! ** 2;
    pulses++;
  });
  expect(Math.abs(10 * Math.log10(sum / (bins * 1e-3)))).toBeLessThan(0.5);
  // 10,000 in a second from 35 ms on
  expect(pulses).toBeGreaterThan(9000);
  expect(pulses).toBeLessThan(11_000);
});

it('two receivers hear alike what a diffuse field gives both, sin kr / kr', () => {
  const apart = 0.4;
  for (const hz of [100, 200, 300, 600]) {
    let [both, one, other] = [0, 0, 0];
    for (let seed = 1; seed <= 20; seed++) {
      const [a, b] = [realFft(at(3, seed)), realFft(at(3 + apart, seed))];
      const from = Math.round(((hz - 25) * size) / rate);
      const to = Math.round(((hz + 25) * size) / rate);
      for (let k = from; k < to; k++) {
        both += a.re[k]! * b.re[k]! + a.im[k]! * b.im[k]!;
        one += a.re[k]! ** 2 + a.im[k]! ** 2;
        other += b.re[k]! ** 2 + b.im[k]! ** 2;
      }
    }
    const kr = (2 * Math.PI * hz * apart) / 343;
    expect(Math.abs(both / Math.sqrt(one * other) - Math.sin(kr) / kr), `${hz} Hz`).toBeLessThan(0.1);
  }
});

it('refuses a room without a volume', () => {
  expect(() =>
    fieldPulses(even, { ...request, volume: 0, seed: 1, receiver: request.middle }, () => {}),
  ).toThrow(RangeError);
});
