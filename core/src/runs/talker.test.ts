import { describe, expect, it } from 'vitest';
import { emissionInto } from '../tracing/index.js';
import { talkerEmission, voiceLevels, VOICES } from './index.js';

const into = (azimuth: number, elevation: number, deg: number, octave: number) => {
  const { table, powerDb } = talkerEmission('normal', azimuth, elevation);
  const out = new Float64Array(8);
  const way = azimuth + (deg * Math.PI) / 180;
  emissionInto(table)(
    Math.cos(elevation) * Math.cos(way),
    Math.cos(elevation) * Math.sin(way),
    Math.sin(elevation),
    out,
  );
  return 10 * Math.log10(out[octave]!) + powerDb[octave]!;
};

describe('a talker', () => {
  it('has its level 1 m ahead, whichever way it faces', () => {
    for (const azimuth of [0, 1, -2.5])
      for (let o = 1; o < 8; o++) expect(into(azimuth, 0, 0, o)).toBeCloseTo(voiceLevels('normal')[o]!, 0);
  });
  it('sends lows everywhere, and less and less of the highs to the back', () => {
    const behind = [1, 3, 4, 5, 6].map((o) => into(0.7, 0, 0, o) - into(0.7, 0, 180, o));
    expect(behind[0]).toBeLessThan(2);
    for (let i = 1; i < behind.length; i++) expect(behind[i]).toBeGreaterThan(behind[i - 1]! - 0.5);
    expect(behind.at(-1)).toBeGreaterThan(6);
    // right behind a sphere its ways around meet again: beside that it is quieter
    expect(into(0, 0, 0, 6) - into(0, 0, 135, 6)).toBeGreaterThan(12);
  });
});

it('speaks as loud as the standard has it, A-weighted', () => {
  // A-weighting of the octaves 125 Hz to 8 kHz (IEC 61672-1)
  const a = [-16.1, -8.6, -3.2, 0, 1.2, 1, -1.1];
  for (const voice of ['normal', 'raised', 'loud'] as const) {
    const sum = voiceLevels(voice)
      .slice(1)
      .reduce((s, db, k) => s + 10 ** ((db + a[k]!) / 10), 0);
    expect(10 * Math.log10(sum)).toBeCloseTo(VOICES[voice], 0);
  }
});
