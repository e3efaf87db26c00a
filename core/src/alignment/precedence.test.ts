import { expect, it } from 'vitest';
import { delayForOffset, notLed } from './index.js';

it('who comes 1 to 30 ms later and no more than 10 dB louder is heard from the first', () => {
  expect(notLed({ laterS: 0.012, louderDb: 9.9 })).toBeNull();
  expect(notLed({ laterS: 0.001, louderDb: 0 })).toBeNull();
  expect(notLed({ laterS: 0.03, louderDb: 0 })).toBeNull();
  expect(notLed({ laterS: 0.012, louderDb: 10.1 })).toBe('too loud');
  expect(notLed({ laterS: 0.0005, louderDb: 0 })).toBe('first');
  expect(notLed({ laterS: -0.02, louderDb: 0 })).toBe('first');
  expect(notLed({ laterS: 0.031, louderDb: 0 })).toBe('too late');
});

it('what is far softer leads nowhere, whenever it comes', () => {
  expect(notLed({ laterS: -0.02, louderDb: -10.1 })).toBeNull();
  expect(notLed({ laterS: 0.2, louderDb: -Infinity })).toBeNull();
  expect(() => notLed({ laterS: NaN, louderDb: 0 })).toThrow(RangeError);
  expect(() => notLed({ laterS: 0, louderDb: NaN })).toThrow(RangeError);
});

it('the delay for an offset: later by what is missing', () => {
  // heard 20 ms before the main, to come 12 ms after it: 32 ms
  expect(delayForOffset(0, -0.02, 0.012)).toBeCloseTo(0.032, 12);
  expect(delayForOffset(0.032, 0.012, 0.012)).toBeCloseTo(0.032, 12);
});
