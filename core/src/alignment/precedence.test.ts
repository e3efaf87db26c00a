import { expect, it } from 'vitest';
import { delayForOffset, louderPerOctave, notLed, OCTAVES } from './index.js';

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

it('in each octave the second is as much louder as its gain there; where it is not known, nothing is said', () => {
  const frequency = Float64Array.from({ length: 481 }, (_, n) => 20 * 1000 ** (n / 480));
  const flat = (gain: (hz: number) => number) => ({
    frequency,
    re: frequency.map(gain),
    im: frequency.map(() => 0),
  });
  const louder = louderPerOctave(
    flat(() => 2),
    // half as loud up to the edge of an octave, twice as loud above it, not known in the lowest
    flat((hz) => (hz < 90 ? NaN : hz < 500 * Math.SQRT1_2 ? 1 : 4)),
  );
  expect(Number.isNaN(louder[OCTAVES.indexOf(63)]!)).toBe(true);
  expect(louder[OCTAVES.indexOf(250)]!).toBeCloseTo(-6.0206, 3);
  expect(louder[OCTAVES.indexOf(1000)]!).toBeCloseTo(6.0206, 3);
  const short = { ...flat(() => 1), frequency: frequency.slice(1) };
  expect(() =>
    louderPerOctave(
      flat(() => 1),
      short,
    ),
  ).toThrow(RangeError);
});
