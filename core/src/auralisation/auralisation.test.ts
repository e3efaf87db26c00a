import { describe, expect, it } from 'vitest';
import { loudness } from '../level/index.js';
import {
  binFrequencies,
  convolve,
  convolveLong,
  powerOf,
  realFft,
  seededRandom,
  whiteNoise,
} from '../signal/index.js';
import {
  auralise,
  chanceOf,
  listeningMaterial,
  matchLoudness,
  pluck,
  pluckedStrings,
  renderResponses,
  safeGain,
} from './index.js';

const rate = 48000;

describe('chanceOf', () => {
  it('is the tail of the binomial distribution', () => {
    expect(chanceOf(9, 10, 0.5)).toBeCloseTo(11 / 1024, 12);
    expect(chanceOf(0, 7, 0.5)).toBeCloseTo(1, 12);
    expect(chanceOf(3, 3, 0.25)).toBeCloseTo(1 / 64, 12);
    // summed the slow way: 12 of 16
    let slow = 0;
    for (let bits = 0; bits < 65536; bits++) if (bits.toString(2).replaceAll('0', '').length >= 12) slow++;
    expect(chanceOf(12, 16, 0.5)).toBeCloseTo(slow / 65536, 12);
  });
  it('refuses what is no count', () => {
    expect(() => chanceOf(5, 4, 0.5)).toThrow(/turns/);
    expect(() => chanceOf(1, 2, NaN)).toThrow(/share/);
  });
});

describe('plucked strings', () => {
  it.each([110, 261.6, 659.3])('sound at %f Hz, within 3 cents', (frequency) => {
    const note = pluck(frequency, rate, seededRandom(3));
    const power = powerOf(realFft(note.subarray(4800), 262144));
    const bins = binFrequencies(262144, rate);
    const near = [...power.keys()].filter((k) => bins[k]! > 0.8 * frequency && bins[k]! < 1.2 * frequency);
    const top = near.reduce((a, b) => (power[b]! > power[a]! ? b : a));
    expect(Math.abs(1200 * Math.log2(bins[top]! / frequency))).toBeLessThan(3);
  });
  it('are the same for the same seed, in stereo, and never beyond half of full scale', () => {
    const [left, right] = pluckedStrings(rate);
    expect(pluckedStrings(rate)[0]).toEqual(left);
    expect(left).not.toEqual(right);
    const most = [left, right].flatMap((c) => [...c]).reduce((a, v) => Math.max(a, Math.abs(v)), 0);
    expect(most).toBeCloseTo(0.5, 6);
  });
});

it('convolves a long signal block by block to the same', () => {
  const [signal, response] = [whiteNoise(200_001, 2), whiteNoise(3001, 3)];
  const [got, want] = [convolveLong(signal, response), convolve(signal, response)];
  expect(got.length).toBe(want.length);
  for (let i = 0; i < want.length; i += 371) expect(got[i]).toBeCloseTo(want[i]!, 8);
  expect(convolveLong(signal, new Float64Array(0))).toHaveLength(0);
});

describe('auralise', () => {
  it('sums what comes by each way, and lets a loop ring on into its start', () => {
    const ways = [
      { sound: Float32Array.of(1, 0, 0, 0), responses: [Float32Array.of(0.5, 0.25)] },
      { sound: Float32Array.of(0, 0, 0, 1), responses: [Float32Array.of(0, 1)] },
    ];
    const close = (got: Float32Array, want: number[]) =>
      want.forEach((v, i) => expect(got[i]).toBeCloseTo(v, 6));
    close(auralise(ways, 4)[0]!, [0.5, 0.25, 0, 0]);
    close(auralise(ways, 4, true)[0]!, [1.5, 0.25, 0, 0]);
  });
});

describe('matchLoudness', () => {
  it('brings all to the quietest, within 0.1 LU, and leaves silence alone', () => {
    const noise = whiteNoise(2 * rate, 5).map((v) => 0.05 * v);
    const candidates = [[noise], [noise.map((v) => 3 * v)], [new Float32Array(2 * rate)]];
    const { trimDb } = matchLoudness(candidates, rate);
    expect(trimDb[0]).toBe(0);
    expect(trimDb[1]).toBeCloseTo(-9.542, 2);
    expect(trimDb[2]).toBe(0);
    const again = candidates[1]![0]!.map((v) => v * 10 ** (trimDb[1]! / 20));
    expect(Math.abs(loudness([again], rate) - loudness([noise], rate))).toBeLessThan(0.1);
    expect(safeGain(candidates, trimDb)).toBe(1);
    expect(safeGain([[Float32Array.of(2)]], [0])).toBeCloseTo(0.485, 6);
  });
});

describe('noise of a band', () => {
  const [left, right] = listeningMaterial({ from: 50, to: 200 });
  it('is the same on both sides, so that what plays it can cancel', { tags: 'bars' }, () => {
    expect(left).not.toBe(right);
    expect(left).toEqual(right);
  });
  it('is pink in its band, and far below an octave beside it', () => {
    const power = powerOf(realFft(left!, 524288));
    const bins = binFrequencies(524288, rate);
    const inside = (from: number, to: number) =>
      10 * Math.log10(bins.reduce((sum, f, k) => (f >= from && f < to ? sum + power[k]! : sum), 0));
    expect(Math.abs(inside(50, 100) - inside(100, 200))).toBeLessThan(1);
    // 48 dB per octave: in the octaves beside it 1 / 15 of the power, and less further out
    expect(inside(100, 200) - inside(400, 800)).toBeGreaterThan(45);
    expect(inside(50, 100) - inside(12.5, 25)).toBeGreaterThan(45);
  });
  it('refuses a band that is none', () => {
    expect(() => listeningMaterial({ from: 200, to: 50 })).toThrow(RangeError);
    expect(() => listeningMaterial({ from: NaN, to: 50 })).toThrow(RangeError);
  });
});

it('a piece through responses: to each ear its own, all brought to one loudness', () => {
  const material = Float32Array.from(
    { length: 48_000 },
    (_, i) => 0.3 * Math.sin(0.11 * i) * Math.sin(0.0007 * i),
  );
  const at = (delay: number, gain: number) => {
    const r = new Float64Array(200);
    r[delay] = gain;
    return r;
  };
  const { sounds, trimDb } = renderResponses({
    material,
    candidates: [
      [at(0, 1), at(40, 0.5)],
      [at(0, 0.1), at(0, 0.1)],
    ],
    matched: true,
    loops: false,
  });
  expect(sounds.map((s) => s.length)).toEqual([2, 2]);
  // the right ear hears the same 40 samples later, at half
  for (const i of [1000, 20_000, 40_000])
    expect(sounds[0]![1]![i + 40]).toBeCloseTo(sounds[0]![0]![i]! / 2, 6);
  // by their energies: 1 + 1/4 against 2/100
  expect(trimDb[0]! - trimDb[1]!).toBeCloseTo(10 * Math.log10(0.02 / 1.25), 1);
});
