import { expect, it } from 'vitest';
import {
  biquadSpectrum,
  butterworth,
  dbOfPower,
  inverseRealFft,
  multiplyTraces,
  peaking,
  powerOf,
} from '../signal/index.js';
import { divideOut } from './divideOut.js';

const RATE = 48000;
const size = 1 << 16;
const interfaceSections = [...butterworth('highpass', 1, 12, RATE), peaking(16000, -2, 1, RATE)];
const own = biquadSpectrum(interfaceSections, size);
const gained = { size, re: own.re.map((v) => 0.4 * v), im: own.im.map((v) => 0.4 * v) };
const impulse = { samples: Float32Array.from(inverseRealFft(gained)), rate: RATE, zero: 0 };
const system = biquadSpectrum([peaking(300, 6, 1, RATE)], size);

it('gives the system back within 0.05 dB and 1 degree from 20 Hz to 20 kHz, at its level at 1 kHz', () => {
  const through = multiplyTraces(system, own);
  const out = divideOut(through, impulse);
  const unity = Math.hypot(own.re[1365]!, own.im[1365]!);
  for (let k = Math.round((20 * size) / RATE); k < (20000 * size) / RATE; k++) {
    const ratio = dbOfPower(
      (out.re[k]! ** 2 + out.im[k]! ** 2) / (system.re[k]! ** 2 + system.im[k]! ** 2) / unity ** 2,
    );
    expect(Math.abs(ratio)).toBeLessThan(0.05);
    const turn = Math.atan2(
      out.im[k]! * system.re[k]! - out.re[k]! * system.im[k]!,
      out.re[k]! * system.re[k]! + out.im[k]! * system.im[k]!,
    );
    expect(Math.abs(turn)).toBeLessThan(Math.PI / 180 + 0.02);
  }
});

it('raises nothing by more than 12 dB and leaves what lies outside the band', () => {
  const deaf = {
    ...impulse,
    samples: Float32Array.from(inverseRealFft(biquadSpectrum(butterworth('lowpass', 8, 6000, RATE), size))),
  };
  const own = powerOf(system);
  const power = powerOf(divideOut(system, deaf)).map((p, k) => p / own[k]!);
  expect(dbOfPower(Math.max(...power.subarray(1)))).toBeLessThan(12.1);
  expect(power[1]).toBeCloseTo(1, 6);
  expect(() => divideOut(system, { ...impulse, samples: new Float32Array(10) })).toThrow(/1 kHz/);
});
