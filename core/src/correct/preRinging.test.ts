import { describe, expect, it } from 'vitest';
import { mainTap, preRinging, worstAhead } from './index.js';

const rate = 48000;
const silent = (length: number) => new Float64Array(length);

it('finds the loudest tap', () => {
  const fir = Float32Array.of(0, 0.2, -2, 1);
  expect(mainTap(fir)).toBe(2);
  expect(mainTap(new Float32Array(0))).toBe(0);
});

describe('pre-ringing', () => {
  it('is none for a filter that only plays later', () => {
    const fir = silent(9600);
    fir[0] = 1;
    fir[2400] = 0.5; // an echo of 50 ms
    expect(worstAhead(preRinging(fir, rate))).toBeNull();
  });

  it('is the energy ahead in that octave: an impulse a quarter as strong, 50 ms early, everywhere', () => {
    const fir = silent(9600);
    fir[4800] = 1;
    fir[2400] = 0.25;
    const share = 10 * Math.log10(0.25 ** 2 / (1 + 0.25 ** 2)); // -12.3 dB
    for (const { centre, aheadDb } of preRinging(fir, rate))
      if (centre > 63) expect(Math.abs(aheadDb - share)).toBeLessThan(0.1);
  });

  it('is told of the octave it lies in: a tone of 125 Hz that swells for 200 ms ahead of the arrival', () => {
    const fir = silent(24000);
    fir[12000] = 1;
    for (let n = 1; n < 9600; n++)
      fir[12000 - n] = 0.004 * Math.exp(-n / 4800) * Math.sin((2 * Math.PI * 125 * n) / rate);
    const octaves = preRinging(fir, rate);
    expect(worstAhead(octaves)!.centre).toBe(125);
    expect(octaves.find((o) => o.centre === 2000)!.aheadDb).toBeLessThan(-35);
  });

  it('of no filter it is what the analysis itself spreads', () => {
    const unit = silent(4800);
    unit[2400] = 1;
    for (const { aheadDb, plainDb } of preRinging(unit, rate)) expect(aheadDb).toBeCloseTo(plainDb, 2);
    expect(worstAhead(preRinging(unit, rate))).toBeNull();
  });
});
