import { expect, it } from 'vitest';
import { dbOfGain, dbOfPower, gainOfDb, levelDb, powerOfDb } from './index.js';

const f64 = (...values: number[]) => Float64Array.from(values);

it('gives 0, -20 and 20 dB for magnitudes 1, 0.1 and 10', () => {
  const h = { frequency: f64(20, 200, 2000), re: f64(1, 0, -10), im: f64(0, 0.1, 0) };
  levelDb(h).forEach((level, i) => expect(level).toBeCloseTo([0, -20, 20][i]!, 12)); // exact by definition
});

it('keeps -Infinity for nothing and NaN for NaN, and refuses differing lengths', () => {
  const h = { frequency: f64(1, 2), re: f64(0, NaN), im: f64(0, 0) };
  expect(Array.from(levelDb(h))).toEqual([-Infinity, NaN]);
  expect(() => levelDb({ ...h, im: f64(0) })).toThrow(/2 frequencies, but 2 re, 1 im/);
});

it('turns gains and powers there and back', () => {
  for (const db of [-120, -3, 0, 6.02, 94]) {
    expect(dbOfGain(gainOfDb(db))).toBeCloseTo(db, 10);
    expect(dbOfPower(powerOfDb(db))).toBeCloseTo(db, 10);
  }
  expect(dbOfGain(-2)).toBeCloseTo(6.0206, 4);
});
