import { describe, expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { quietFigures, toneFigures } from './index.js';

const rate = 48_000;
const length = 1 << 17;
const made = (of: (t: number, i: number) => number) =>
  Float64Array.from({ length }, (_, i) => of(i / rate, i));

describe('a tone through a device', () => {
  it('its level, frequency and each harmonic are read as they were made', () => {
    const [f, a] = [997.3, 0.25];
    const x = made(
      (t) =>
        a *
        (Math.sin(2 * Math.PI * f * t) +
          10 ** (-60 / 20) * Math.sin(2 * Math.PI * 2 * f * t + 1) +
          10 ** (-70 / 20) * Math.sin(2 * Math.PI * 3 * f * t)),
    );
    const read = toneFigures(x, rate, 1000)!;
    expect(read.hz).toBeCloseTo(f, 2);
    expect(read.levelDb).toBeCloseTo(20 * Math.log10(a / Math.SQRT2), 2);
    expect(read.harmonicsDb[0]!.db).toBeCloseTo(-60, 1);
    expect(read.harmonicsDb[1]!.db).toBeCloseTo(-70, 1);
    expect(read.distortionDb).toBeCloseTo(10 * Math.log10(1e-6 + 1e-7), 1);
  });
  it('noise counts with the distortion, in the band of hearing', () => {
    const random = seededRandom(3);
    const x = made((t) => 0.5 * Math.sin(2 * Math.PI * 1000 * t) + 0.001 * random.normal());
    // white noise of that RMS, of which 20 kHz of 24 count
    const expected = 20 * Math.log10(0.001 / (0.5 / Math.SQRT2)) + 10 * Math.log10(19_980 / 24_000);
    const read = toneFigures(x, rate, 1000)!;
    expect(Math.abs(read.distortionAndNoiseDb - expected)).toBeLessThan(0.2);
    // there are no harmonics: what is read in their lines is the noise in them
    expect(Math.abs(read.distortionDb - read.distortionFloorDb)).toBeLessThan(2);
  });
  it('says nothing where there is no tone', () => {
    const random = seededRandom(4);
    expect(
      toneFigures(
        made(() => random.normal()),
        rate,
        1000,
      ),
    ).toBeNull();
    expect(
      toneFigures(
        made(() => 0),
        rate,
        1000,
      ),
    ).toBeNull();
    expect(() => toneFigures(new Float64Array(100), rate, 1000)).toThrow(/number of samples/);
    expect(() =>
      toneFigures(
        made(() => NaN),
        rate,
        1000,
      ),
    ).toThrow(/finite/);
  });
});

it('what a silent device gives off is its power between 20 Hz and 20 kHz', () => {
  const random = seededRandom(5);
  const { levelDb, weightedDb } = quietFigures(
    made(() => 1e-4 * random.normal()),
    rate,
  );
  expect(Math.abs(levelDb - (-80 + 10 * Math.log10(19_980 / 24_000)))).toBeLessThan(0.1);
  // a tone at 1 kHz weighs nothing, one at 100 Hz 19.1 dB (IEC 61672)
  const tone = (hz: number) =>
    quietFigures(
      made((t) => 0.1 * Math.sin(2 * Math.PI * hz * t)),
      rate,
    );
  expect(tone(1000).weightedDb).toBeCloseTo(tone(1000).levelDb, 1);
  expect(tone(100).weightedDb).toBeCloseTo(tone(100).levelDb - 19.1, 1);
  expect(weightedDb).toBeLessThan(levelDb);
});
