import { expect, it } from 'vitest';
import { playedAs, type SourceSetting } from './index.js';

const RATE = 48_000;
const plain: SourceSetting = {
  gainDb: 0,
  delayS: 0,
  inverted: false,
  allPasses: [],
  highPass: null,
  lowPass: null,
};
/** A tone of 1 kHz, faded in and out. */
const tone = Float32Array.from({ length: 9600 }, (_, i) => {
  const edge = Math.min(1, i / 960, (9599 - i) / 960);
  return 0.5 * edge * Math.sin((2 * Math.PI * 1000 * i) / RATE);
});

it('as it is, nothing changes', () => {
  const played = playedAs(tone, RATE, plain);
  expect(played).toHaveLength(tone.length);
  tone.forEach((v, i) => expect(Math.abs(played[i]! - v)).toBeLessThan(1e-6));
});

it('is later by whole samples and parts of one, louder, and turned over', () => {
  const played = playedAs(tone, RATE, { ...plain, delayS: 100.25 / RATE, gainDb: -6.0206, inverted: true });
  expect(played).toHaveLength(tone.length + 101);
  for (const i of [3000, 4000, 5001]) {
    const want = -0.25 * Math.sin((2 * Math.PI * 1000 * (i - 100.25)) / RATE);
    expect(Math.abs(played[i]! - want)).toBeLessThan(1e-4);
  }
});

it('goes through its crossovers: 24 dB an octave below the corner of a high-pass', () => {
  const highPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 2000 };
  const played = playedAs(tone, RATE, { ...plain, highPass });
  const rms = (x: Float32Array) => Math.sqrt(x.slice(3000, 6600).reduce((s, v) => s + v * v, 0) / 3600);
  // 1 / (1 + (2000 / 1000)^4) of what was there
  expect(20 * Math.log10(rms(played) / rms(tone))).toBeCloseTo(-20 * Math.log10(17), 1);
});

it('nobody plays earlier than now', () => {
  expect(() => playedAs(tone, RATE, { ...plain, delayS: -0.001 })).toThrow(/-0.001 s cannot be played/);
  expect(() => playedAs(tone, RATE, { ...plain, delayS: NaN })).toThrow(RangeError);
});
