import { expect, it } from 'vitest';
import { delayScale } from './delayUnits';

const air = { rate: 48_000, temperatureC: 20 };

it('writes 10 ms as 10 ms, 480 samples, 3.43 m and 11.3 ft of air at 20 degrees', () => {
  const of = (unit: Parameters<typeof delayScale>[0]) => 0.01 * delayScale(unit, air).perSecond;
  expect(of('ms')).toBeCloseTo(10, 9);
  expect(of('samples')).toBeCloseTo(480, 9);
  expect(of('m')).toBeCloseTo(3.43, 1);
  expect(of('ft')).toBeCloseTo(of('m') / 0.3048, 9);
});
