import { describe, expect, it } from 'vitest';
import { realFft, whiteNoise } from '../signal/index.js';
import { SPLIT_HZ, splitLowHigh } from './splitLowHigh.js';

const rate = 48000;
const size = 16384;
const tone = (k: number) =>
  Float64Array.from({ length: size }, (_, i) => Math.cos((2 * Math.PI * k * i) / size));
const bin = (f: number) => Math.round((f * size) / rate);
const rms = (x: Float64Array) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);

describe('lows and highs', () => {
  it('add up to the signal again, whatever it is', () => {
    const signal = whiteNoise(size, 5);
    const [low, high] = splitLowHigh(signal, rate);
    signal.forEach((v, i) => expect(low[i]! + high[i]!).toBeCloseTo(v, 12));
  });

  it.each([
    [60, 1],
    [SPLIT_HZ / 1.45, 1],
    [SPLIT_HZ, 0.5],
    [SPLIT_HZ * 1.45, 0],
    [5000, 0],
  ])('a tone of %f Hz goes to the lows by %f of its amplitude', (f, share) => {
    const signal = tone(bin(f));
    const [low, high] = splitLowHigh(signal, rate);
    expect(rms(low) / rms(signal)).toBeCloseTo(share, 1);
    // without phase: what is left for the highs is the rest of the amplitude
    expect(rms(high) / rms(signal)).toBeCloseTo(1 - rms(low) / rms(signal), 6);
  });

  it('take a spectrum that is known already, and leave it as it is', () => {
    const signal = whiteNoise(size, 7);
    const spectrum = realFft(signal);
    const before = spectrum.re.slice();
    const [low] = splitLowHigh(signal, rate, spectrum);
    expect(spectrum.re).toEqual(before);
    expect(low).toEqual(splitLowHigh(signal, rate)[0]);
  });
});
