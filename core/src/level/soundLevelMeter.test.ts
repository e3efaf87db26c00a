import { describe, expect, it } from 'vitest';
import { SoundLevelMeter } from './soundLevelMeter.js';
import { weightingDb } from './weighting.js';

const RATE = 48000;
const tone = (frequency: number, seconds: number, amplitude = Math.SQRT2) =>
  Float64Array.from(
    { length: Math.round(seconds * RATE) },
    (_, i) => amplitude * Math.sin((2 * Math.PI * frequency * i) / RATE),
  );
const meterOf = (...signals: Float64Array[]) => {
  const meter = new SoundLevelMeter(RATE);
  for (const signal of signals) {
    for (let i = 0; i < signal.length; i += 1000) meter.process(signal.subarray(i, i + 1000));
  }
  return meter;
};

describe('steady tones', () => {
  it.each([31.5, 125, 1000, 4000, 12500])('%f Hz of 0 dB reads its weighting, Fast, Slow and Leq', (f) => {
    const meter = meterOf(tone(f, 12));
    for (const weighting of ['A', 'C', 'Z'] as const) {
      const expected = weightingDb(weighting, f);
      // what ripples at twice 31.5 Hz is within 0.2 dB for Fast
      expect(Math.abs(meter.read(weighting).fastDb - expected)).toBeLessThan(0.35);
      expect(Math.abs(meter.read(weighting).slowDb - expected)).toBeLessThan(0.2);
      expect(Math.abs(meter.leqDb(weighting, 5) - expected)).toBeLessThan(0.2);
    }
    expect(meter.read('Z').peakDb).toBeCloseTo(20 * Math.log10(Math.SQRT2), 1);
  });
});

/** IEC 61672-1:2013, table 4: response to a burst of a 4 kHz tone re the steady level: duration in ms, Fast max, Slow max. */
const BURSTS: [number, number, number | null][] = [
  [1000, 0.0, -2.0],
  [500, -0.1, -4.1],
  [200, -1.0, -7.4],
  [100, -2.6, -10.2],
  [50, -4.8, -13.1],
  [20, -8.3, -17.0],
  [10, -11.1, -20.0],
  [5, -14.1, -23.0],
  [2, -18.0, -27.0],
  [1, -21.0, null],
];

it.each(BURSTS)('a burst of %i ms rises to %f dB Fast and %s dB Slow', (ms, fast, slow) => {
  const meter = meterOf(new Float64Array(4800), tone(4000, ms / 1000), new Float64Array(24000));
  const steady = weightingDb('A', 4000);
  expect(Math.abs(meter.read('A').maxDb.Fast - steady - fast)).toBeLessThan(0.3);
  if (slow !== null) expect(Math.abs(meter.read('A').maxDb.Slow - steady - slow)).toBeLessThan(0.3);
});

/** IEC 61672-1:2013, table 5: peak C of one cycle or a half re the steady C level: Hz, cycles, dB, class 1 limit. */
it.each([
  [31.5, 1, 2.5, 2],
  [500, 1, 3.5, 1],
  [8000, 1, 3.4, 2],
  [500, 0.5, 2.4, 1],
] as const)('%f Hz, %f cycles: peak C lies %f dB over the steady level', (f, cycles, expected, limit) => {
  const meter = meterOf(new Float64Array(4800), tone(f, cycles / f), new Float64Array(4800));
  const over = meter.read('C').peakDb - weightingDb('C', f);
  expect(Math.abs(over - expected)).toBeLessThan(limit / 2);
});

it('Leq of half a minute at 0 dB and half a minute of nothing is -3 dB, and a chosen time looks back only so far', () => {
  const meter = meterOf(tone(1000, 30), new Float64Array(30 * RATE));
  expect(meter.leqDb('A')).toBeCloseTo(-3.01, 1);
  expect(meter.leqDb('A', 60)).toBeCloseTo(-3.01, 1);
  expect(meter.leqDb('Z', 20)).toBeLessThan(-100);
  expect(meter.leqDb('A', 40)).toBeCloseTo(-6.02, 1);
});

it('keeps maxima and minima apart, and begins them anew', () => {
  const meter = meterOf(tone(1000, 5), tone(1000, 5, 0.01 * Math.SQRT2));
  expect(meter.read('Z').maxDb.Fast).toBeCloseTo(0, 1);
  expect(meter.read('Z').minDb.Fast).toBeCloseTo(-40, 1);
  // Slow falls by 4.34 dB a second: five seconds after 0 dB it stands at -21.7 dB
  expect(meter.read('Z').slowDb).toBeCloseTo(10 * Math.log10(Math.exp(-5) + 1e-4), 1);
  meter.reset();
  meter.process(tone(1000, 1, 0.01 * Math.SQRT2));
  expect(meter.read('Z').maxDb.Fast).toBeCloseTo(-40, 1);
  expect(meter.leqDb('Z')).toBeCloseTo(-40, 1);
  expect(meter.sinceResetS).toBeCloseTo(1, 9);
});

it('does not depend on how the sound is cut into blocks', () => {
  const signal = tone(700, 1);
  const whole = new SoundLevelMeter(RATE);
  whole.process(signal);
  expect(meterOf(signal).read('A').fastDb).toBeCloseTo(whole.read('A').fastDb, 9);
  expect(meterOf(signal).leqDb('A')).toBeCloseTo(whole.leqDb('A'), 9);
});

it('refuses what is no number, and silence reads as nothing', () => {
  const meter = new SoundLevelMeter(RATE);
  expect(() => meter.process(Float64Array.of(0, NaN))).toThrow(/sample 1/);
  meter.process(new Float64Array(RATE));
  expect(meter.read('A').fastDb).toBe(-Infinity);
});
