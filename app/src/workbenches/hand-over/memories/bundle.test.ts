import { readWav } from '@pebble-hall/core/formats';
import { plainOutput } from '@pebble-hall/core/processing';
import { describe, expect, it } from 'vitest';
import { bundleFiles, type BundleRequest } from './bundle';

const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);
const fir = Float32Array.from({ length: 400 }, (_, i) =>
  i === 0 ? 0.9 : 0.3 * Math.exp(-i / 40) * Math.sin(i / 9),
);
const section = { kind: 'peak' as const, frequency: 60, gainDb: -6, q: 3 };
const request: BundleRequest = {
  project: 'Saltmarsh Boathouse',
  where: 'memory B',
  variant: 'First variant',
  channels: [
    {
      name: 'Left',
      output: 1,
      fir,
      settings: { ...plainOutput(), trimDb: -2, delayMs: 1.5, sections: [section] },
    },
    {
      name: 'Sub 1',
      output: 6,
      fir: fir.subarray(0, 200),
      settings: { ...plainOutput(), lowPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 110 } },
    },
  ],
  predictions: [
    {
      path: 'home-spot/left-as-left',
      about: 'Left at Home spot, as left (predicted)',
      frequency: Float64Array.of(100, 1000),
      levelDb: Float64Array.of(-3.25, 0),
    },
  ],
  rate: 48000,
  rates: [48000, 96000],
  layout: 'one per channel',
  bits: 64,
};
const levelAt = (x: ArrayLike<number>, rate: number, f: number) => {
  let [re, im] = [0, 0];
  for (let n = 0; n < x.length; n++) {
    re += x[n]! * Math.cos((2 * Math.PI * f * n) / rate);
    im -= x[n]! * Math.sin((2 * Math.PI * f * n) / rate);
  }
  return 20 * Math.log10(Math.hypot(re, im));
};

describe('bundleFiles', () => {
  const files = bundleFiles(request);
  it('holds filters at every rate with one response, sections, settings and what must be known', () => {
    expect(Object.keys(files).sort()).toEqual([
      'README.txt',
      'delays-and-gains.csv',
      'fir-48000/output-1-left.txt',
      'fir-48000/output-1-left.wav',
      'fir-48000/output-6-sub-1.txt',
      'fir-48000/output-6-sub-1.wav',
      'fir-96000/output-1-left.txt',
      'fir-96000/output-1-left.wav',
      'fir-96000/output-6-sub-1.txt',
      'fir-96000/output-6-sub-1.wav',
      'predictions/home-spot/left-as-left.txt',
      'sections/biquads-48000.csv',
      'sections/biquads-48000.json',
      'sections/biquads-96000.csv',
      'sections/biquads-96000.json',
      'sections/sections.txt',
    ]);
    const [own, twice] = ['fir-48000', 'fir-96000'].map((f) => readWav(files[`${f}/output-1-left.wav`]!));
    expect([own!.rate, twice!.rate, twice!.bits]).toEqual([48000, 96000, 64]);
    for (const f of [30, 700, 5000, 18000])
      expect(levelAt(twice!.channels[0]!, 96000, f)).toBeCloseTo(levelAt(own!.channels[0]!, 48000, f), 1);
    const taps = text(files['fir-48000/output-1-left.txt']).trim().split('\n').map(Number);
    expect(taps).toEqual([...own!.channels[0]!]);
  });
  it('tells delays, gains, crossovers and conventions', () => {
    expect(text(files['delays-and-gains.csv'])).toMatch(
      /^1,"Left",-2,1\.5,normal,large,"none","none","none",no$/m,
    );
    expect(text(files['delays-and-gains.csv'])).toMatch(/Linkwitz-Riley 24 dB\/octave at 110 Hz/);
    expect(text(files['README.txt'])).toMatch(/subtracted: y\[n\]/);
    expect(text(files['README.txt'])).toMatch(
      /96000 Hz: a section deviates by at most 0\.0\d dB up to 19200 Hz/,
    );
    expect(text(files['predictions/home-spot/left-as-left.txt'])).toMatch(/^100\.000\t-3\.250$/m);
    expect(text(files['README.txt'])).toMatch(/96000 Hz: \d+ taps; begins \d\.\d+ ms later/);
    expect(text(files['README.txt'])).toMatch(
      /latency, to the main tap: Left \d+\.\d\d ms, Sub 1 \d+\.\d\d ms/,
    );
  });
  it('puts all outputs into one file when asked to, in the order told', () => {
    const one = bundleFiles({ ...request, layout: 'one file', rates: [48000], bits: 32 });
    const wav = readWav(one['fir-48000/filters.wav']!);
    expect(wav.channels).toHaveLength(2);
    expect(wav.bits).toBe(32);
    expect(text(one['README.txt'])).toMatch(/1\. output 1, Left\n {2}2\. output 6, Sub 1/);
  });
});
