import { readCalibrationText } from '@pebble-hall/core/formats';
import { biquadSpectrum } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { NET_LOFT_SISKIN, siskinCalibrationText, siskinSections } from './index.js';

it('comes with a file that describes the microphone it comes with', () => {
  const file = readCalibrationText(siskinCalibrationText(NET_LOFT_SISKIN));
  expect(file).toMatchObject({ serial: '4417', sensitivityDb: -36.4 });
  const size = 1 << 17;
  const { re, im } = biquadSpectrum(siskinSections(NET_LOFT_SISKIN), size);
  const level = (f: number) => {
    const k = Math.round((f * size) / 48000);
    return 10 * Math.log10(re[k]! ** 2 + im[k]! ** 2);
  };
  file.frequency.forEach((f, i) => {
    if (f > 30) expect(Math.abs(file.levelDb[i]! - (level(f) - level(1000)))).toBeLessThan(0.05);
  });
  expect(Math.max(...file.levelDb)).toBeGreaterThan(2); // it is worth correcting
});

it('differs from serial to serial', () => {
  expect(siskinCalibrationText(4417)).not.toBe(siskinCalibrationText(4418));
});
