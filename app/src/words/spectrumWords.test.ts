import type { SpectrumReading } from '@pebble-hall/core/live';
import { octaveBands } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { spectrumSentences, type HeardSpectrum } from './spectrumWords';

const reading = (frequency: number[], levels: number[]): SpectrumReading => {
  const levelDb = Float64Array.from(levels);
  const overallDb = 10 * Math.log10(levels.reduce((sum, v) => sum + 10 ** (v / 10), 0));
  const none = levelDb.map(() => NaN);
  const frequencies = Float64Array.from(frequency);
  return {
    frequency: frequencies,
    levelDb,
    overallDb,
    maxDb: none,
    minDb: none,
    l10Db: none,
    l50Db: none,
    l90Db: none,
    fastDb: none,
    heardS: 4,
  };
};
const thirds = [50, 63, 80, 100, 1000, 8000];
const heard = (change: Partial<HeardSpectrum>): HeardSpectrum => ({
  name: 'Row 4',
  reading: reading(thirds, [-60, -60, -60, -60, -60, -60]),
  noiseDb: null,
  weighting: 'Z',
  splOffsetDb: null,
  octaves: null,
  traits: null,
  ...change,
});
const say = (change: Partial<HeardSpectrum>) => spectrumSentences(heard(change)).map((s) => s.text);

it('tells the level, and whether it is sound pressure', () => {
  expect(say({})).toEqual(['Row 4: \u221252.2 dB(Z) re full scale, averaged.']);
  expect(say({ splOffsetDb: 120, weighting: 'A' })[0]).toBe('Row 4: 67.8 dB(A), averaged.');
  expect(
    say({
      reading: reading(
        thirds,
        thirds.map(() => -Infinity),
      ),
    }),
  ).toEqual([]);
});

it('tells what part of it the noise of the room explains, and where', () => {
  const noiseDb = Float64Array.of(-60, -61, -75, -80, -80, -61);
  const text = say({ noiseDb })[1]!;
  // (1 + 0.794 + 0.032 + 0.01 + 0.01 + 0.794) / 6
  expect(text).toBe('The room’s own noise explains 44 % of it, and most of it below 80 Hz and above 1 kHz.');
  expect(say({ noiseDb: Float64Array.of(-80, -61, -61, -80, -80, -80) })[1]).toMatch(
    /most of it from 63 Hz to 80 Hz\.$/,
  );
  expect(say({ noiseDb: Float64Array.from(thirds, () => -60) })[1]).toMatch(/explains all of it/);
  expect(say({ noiseDb: Float64Array.from(thirds, () => -95) })[1]).toBe(
    'The room’s own noise explains less than 1 % of it.',
  );
});

it('rates noise by the deciding octave, once levels are calibrated', () => {
  const octaves = octaveBands(1, 25, 20_000).map((b) => b.centre);
  // NR 30 at 1 kHz is 30 dB, all others far below
  const levels = octaves.map((f) => (Math.abs(f - 1000) < 1 ? 30 : 0) - 120);
  const found = say({ octaves: reading(octaves, levels), splOffsetDb: 120 })[1];
  expect(found).toMatch(/rates NR 30, decided by the octave at 1 kHz, and NC \d+, by the one at 1 kHz/);
  expect(say({ octaves: reading(octaves, levels) })).toHaveLength(1);
});

it('tells of hum', () => {
  const traits = [{ kind: 'hum' as const, mainsHz: 50 as const, multiples: [50, 100, 150], riseDb: 22 }];
  expect(say({ traits })[1]).toMatch(/^Hum at 50 Hz/);
});
