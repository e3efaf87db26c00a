import { expect, it } from 'vitest';
import { BLOCK, frequencyOfRow, Listening, rowOfFrequency, ROWS } from './listening';

const tone = (hz: number, amplitude: number, length: number) =>
  Float32Array.from({ length }, (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / 48000));

it('shows a tone in its own row, at its level', () => {
  const hz = (21 * 48000) / BLOCK; // 492 Hz, in the middle of a bin
  const [moment] = new Listening(48000).hear(tone(hz, 0.1, BLOCK));
  const row = Math.floor(rowOfFrequency(hz));
  expect(frequencyOfRow(row)).toBeLessThanOrEqual(hz);
  expect(frequencyOfRow(row + 1)).toBeGreaterThan(hz);
  expect(moment!.rowsDb[row]).toBeCloseTo(-20, 1);
  expect(moment!.levelDb).toBeCloseTo(-23.01, 1);
  expect(moment!.rowsDb[ROWS - 5]).toBeLessThan(-80);
});

it('gives the same moments however the sound is cut up', () => {
  const sound = tone(1000, 0.5, 3 * BLOCK + 100);
  const whole = new Listening(48000).hear(sound);
  const pieces = new Listening(48000);
  const parts = [0, 1000, 1001, 5000].flatMap((from, i, all) =>
    pieces.hear(sound.subarray(from, all[i + 1] ?? sound.length)),
  );
  expect(whole).toHaveLength(3);
  expect(parts).toEqual(whole);
  expect(parts.map((m) => m.fromFrame)).toEqual([0, BLOCK, 2 * BLOCK]);
});
