import { describe, expect, it } from 'vitest';
import { biquadSpectrum, filterBiquads, peaking, realFft, resampleFir } from './index.js';

const size = 262144;
/** Level at a frequency by the transform's definition. */
function levelAt(fir: ArrayLike<number>, rate: number, f: number): number {
  let [re, im] = [0, 0];
  for (let n = 0; n < fir.length; n++) {
    const w = (2 * Math.PI * f * n) / rate;
    re += fir[n]! * Math.cos(w);
    im -= fir[n]! * Math.sin(w);
  }
  return 20 * Math.log10(Math.hypot(re, im));
}
const frequencies = Array.from({ length: 40 }, (_, i) => 20 * 10 ** ((i * Math.log10(19500 / 20)) / 39));
const sections = [peaking(52, -11, 5, 48000), peaking(900, 4, 1.5, 48000), peaking(9000, -5, 1, 48000)];
const impulse = new Float64Array(8192);
impulse[0] = 1;
const minimum = filterBiquads(impulse, sections);

describe.each([44100, 88200, 96000, 176400, 192000])('to %i Hz', (rate) => {
  it('keeps the response within 0.05 dB from 20 Hz to 19.5 kHz', () => {
    const { fir } = resampleFir(minimum, 48000, rate);
    for (const f of frequencies)
      expect(Math.abs(levelAt(fir, rate, f) - levelAt(minimum, 48000, f)), `${f} Hz`).toBeLessThan(0.05);
  });

  it('delays by what it says, and a filter with a late main tap too', () => {
    const late = new Float64Array(4096);
    late[2048] = 0.8;
    late[2100] = 0.1;
    const { fir, addedLatencyS } = resampleFir(late, 48000, rate);
    let at = 0;
    fir.forEach((v, i) => (at = Math.abs(v) > Math.abs(fir[at]!) ? i : at));
    expect(at / rate - addedLatencyS).toBeCloseTo(2048 / 48000, 4);
    for (const f of frequencies)
      expect(Math.abs(levelAt(fir, rate, f) - levelAt(late, 48000, f)), `${f} Hz`).toBeLessThan(0.05);
  });
});

it('does not cut off what only the higher rate holds', () => {
  const { fir } = resampleFir(minimum, 48000, 96000);
  expect(Math.abs(levelAt(fir, 96000, 35000) - levelAt(minimum, 48000, 23990))).toBeLessThan(0.3);
});

it('leaves a filter at its own rate as it is', () => {
  expect(resampleFir(Float32Array.of(1, 0.5), 48000, 48000)).toEqual({
    fir: Float64Array.of(1, 0.5),
    addedLatencyS: 0,
  });
  expect(() => resampleFir(Float32Array.of(1), 48000, NaN)).toThrow(/1000 to 1000000, got NaN/);
  // the spectrum of the sections is what the filter was made from
  const { re } = biquadSpectrum(sections, size);
  expect(realFft(minimum, size).re[1000]).toBeCloseTo(re[1000]!, 3);
});
