import { describe, expect, it } from 'vitest';
import {
  biquadSpectrum,
  butterworth,
  dbOfPower,
  delayTrace,
  gainOfDb,
  interpolateLog,
  inverseRealFft,
  logGrid,
  peaking,
  powerOf,
  binFrequencies,
  smoothPower,
  whiteNoise,
  type ComplexTrace,
} from '../signal/index.js';
import { powerOnGrid } from '../measure/index.js';
import { joinFloorAndEar, type MicrophoneError } from './index.js';

const RATE = 48000;
const SIZE = 65536;
const ZERO = 960;
/** a loudspeaker with peaks and a dip, as it would be known */
const truth = biquadSpectrum(
  [
    ...butterworth('highpass', 2, 55, RATE),
    peaking(120, 6, 3, RATE),
    peaking(400, -5, 4, RATE),
    peaking(3000, 4, 2, RATE),
  ],
  SIZE,
);
const earError: MicrophoneError = { frequency: [20, 1000, 8000, 20000], levelDb: [-1.5, 0, 1, 3] };
const floorError: MicrophoneError = { frequency: [20, 300, 1000, 20000], levelDb: [2, 1, 0, -4] };
const frequency = binFrequencies(SIZE, RATE);

function heard(spectrum: ComplexTrace, error: MicrophoneError, gainDb: number, late: number, seed: number) {
  const e = interpolateLog(
    Float64Array.from(error.frequency),
    Float64Array.from(error.levelDb),
    frequency.map((f) => Math.max(f, 1)),
  );
  const gain = frequency.map((_, k) => gainOfDb(gainDb + e[k]!));
  const read = {
    frequency: spectrum.frequency,
    re: spectrum.re.map((v, k) => v * gain[k]!),
    im: spectrum.im.map((v, k) => v * gain[k]!),
  };
  const noise = whiteNoise(SIZE, seed);
  const samples = inverseRealFft(delayTrace(read, ZERO + late));
  return { samples: samples.map((v, i) => v + 3e-5 * noise[i]!), rate: RATE, zero: ZERO };
}
/** The sound and its reflection from the floor, later and weaker. */
const withFloor = (spectrum: ComplexTrace, late: number, gain: number): ComplexTrace => {
  const bounce = delayTrace(spectrum, late);
  return {
    frequency: spectrum.frequency,
    re: spectrum.re.map((v, k) => v + gain * bounce.re[k]!),
    im: spectrum.im.map((v, k) => v + gain * bounce.im[k]!),
  };
};
const grid = logGrid(30, 16000, 12);
const curve = (p: Float64Array) => p.map(dbOfPower);
const wanted = curve(smoothPower(frequency, powerOf(truth), 6, grid));
const earCurveOf = (impulse: Parameters<typeof powerOnGrid>[0]) => {
  const e = interpolateLog(Float64Array.from(earError.frequency), Float64Array.from(earError.levelDb), grid);
  return curve(powerOnGrid(impulse, grid, 6)).map((v, i) => v - e[i]!);
};

describe('joinFloorAndEar', () => {
  it.each([
    ['as they are', 0, 0],
    ['another gain and a longer cable', -7.3, 0],
    ['farther away, so later', 4, 61.4],
    ['nearer, so earlier', 11, -37.25],
  ])('gives the known response within 0.5 dB, floor %s', (_, gainDb, late) => {
    const { joined, levelDb, delayS, misfitDb } = joinFloorAndEar({
      ear: heard(truth, earError, 0, 200, 1),
      earError,
      floor: heard(truth, floorError, gainDb, 200 + late, 2),
      floorError,
      crossoverHz: 1000,
    });
    expect(levelDb).toBeCloseTo(-gainDb, 1);
    expect(delayS * RATE).toBeCloseTo(-late, 1);
    expect(misfitDb).toBeLessThan(0.2);
    const off = earCurveOf(joined).map((v, i) => Math.abs(v - wanted[i]!));
    expect(Math.max(...off)).toBeLessThan(0.5);
  });

  it.each([300, 1000, 2500])('holds with the crossover at %i Hz', (crossoverHz) => {
    const { joined } = joinFloorAndEar({
      ear: heard(truth, earError, 0, 200, 1),
      earError,
      floor: heard(truth, floorError, 6, 230, 2),
      floorError,
      crossoverHz,
    });
    const off = earCurveOf(joined).map((v, i) => Math.abs(v - wanted[i]!));
    expect(Math.max(...off)).toBeLessThan(0.5);
  });

  it("takes the ear's floor reflection out of the lows", () => {
    // 1.14 m up, about 5 ms later: the ear alone has dips at 100, 300, 500 Hz
    const ear = heard(withFloor(truth, 240, 0.8), earError, 0, 200, 1);
    const floor = heard(truth, floorError, 5.1, 90, 2);
    const { joined } = joinFloorAndEar({ ear, earError, floor, floorError, crossoverHz: 1000 });
    const lows = [...grid.keys()].filter((i) => grid[i]! < 600);
    const shapeOff = (c: Float64Array) => {
      const off = lows.map((i) => c[i]! - wanted[i]!);
      const mean = off.reduce((a, b) => a + b) / off.length;
      return Math.max(...off.map((v) => Math.abs(v - mean)));
    };
    expect(shapeOff(earCurveOf(ear))).toBeGreaterThan(5);
    expect(shapeOff(earCurveOf(joined))).toBeLessThan(0.5);
  });

  it('fits a subwoofer, which has nothing in the overlap, at the upper end of its own band', () => {
    const low = biquadSpectrum(
      [...butterworth('highpass', 2, 25, RATE), ...butterworth('lowpass', 4, 110, RATE)],
      SIZE,
    );
    const { joined, levelDb } = joinFloorAndEar({
      ear: heard(low, earError, 0, 200, 1),
      earError,
      floor: heard(low, floorError, 6, 230, 2),
      floorError,
      crossoverHz: 1000,
      band: { from: 25, to: 110 },
    });
    expect(levelDb).toBeCloseTo(-6, 0);
    const want = curve(smoothPower(frequency, powerOf(low), 6, grid));
    const off = earCurveOf(joined).map((v, i) => Math.abs(v - want[i]!));
    expect(Math.max(...off.filter((_, i) => grid[i]! < 150))).toBeLessThan(0.5);
  });

  it('finds the delay by the direct sound where a room answers, too', () => {
    const room = (late: number, gain: number) =>
      withFloor(withFloor(truth, late, gain), 3.1 * late, 0.7 * gain);
    const { delayS } = joinFloorAndEar({
      ear: heard(room(430, 0.9), earError, 0, 200, 1),
      earError,
      floor: heard(room(610, -0.9), floorError, 3, 215, 2),
      floorError,
      crossoverHz: 1000,
    });
    expect(delayS * RATE).toBeCloseTo(-15, 0);
  });

  it('refuses what does not fit together', () => {
    const ear = heard(truth, earError, 0, 0, 1);
    const request = { ear, earError: null, floor: { ...ear, rate: 44100 }, floorError: null };
    expect(() => joinFloorAndEar({ ...request, crossoverHz: 1000 })).toThrow(/44100/);
    expect(() => joinFloorAndEar({ ...request, floor: ear, crossoverHz: 20 })).toThrow(/crossover/);
  });
});
