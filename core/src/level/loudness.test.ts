import { describe, expect, it } from 'vitest';
import { loudness, loudnessSections } from './index.js';

/** A tone whose level changes: dBFS of its peak, and seconds. */
function tone(rate: number, parts: [number, number][], frequency = 1000): Float32Array {
  const total = parts.reduce((sum, [, s]) => sum + Math.round(s * rate), 0);
  const out = new Float32Array(total);
  let at = 0;
  for (const [db, s] of parts) {
    for (let end = at + Math.round(s * rate); at < end; at++)
      out[at] = 10 ** (db / 20) * Math.sin((2 * Math.PI * frequency * at) / rate);
  }
  return out;
}
const stereo = (x: Float32Array) => [x, x];

it('has the coefficients of the standard at 48 kHz', () => {
  const [shelf, highPass] = loudnessSections(48000);
  const close = (got: number, want: number) => expect(got).toBeCloseTo(want, 10);
  close(shelf!.b0, 1.53512485958697);
  close(shelf!.b1, -2.69169618940638);
  close(shelf!.b2, 1.19839281085285);
  close(shelf!.a1, -1.69065929318241);
  close(shelf!.a2, 0.73248077421585);
  close(highPass!.a1, -1.99004745483398);
  close(highPass!.a2, 0.99007225036621);
});

describe('reference signals, within 0.1 LU', () => {
  it.each([44100, 48000, 96000])(
    'a tone of 997 Hz at full scale in one channel is -3.01 LUFS at %i Hz',
    (rate) => {
      const one = tone(rate, [[0, 4]], 997);
      expect(Math.abs(loudness([one, new Float32Array(one.length)], rate) + 3.01)).toBeLessThan(0.1);
    },
  );
  it.each([
    ['steady', [[-23, 20]], -23],
    ['steady, 10 dB less', [[-33, 20]], -33],
    [
      'quiet ends gated',
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      -23,
    ],
    [
      'very quiet ends too',
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      -23,
    ],
    [
      'nothing gated',
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
      -23,
    ],
  ] as [string, [number, number][], number][])('%s', (_, parts, want) => {
    expect(Math.abs(loudness(stereo(tone(48000, parts)), 48000) - want)).toBeLessThan(0.1);
  });
  it('five channels count with their weights', () => {
    const [a, b, c] = [-28, -24, -30].map((db) => tone(48000, [[db, 20]]));
    expect(Math.abs(loudness([a!, a!, b!, c!, c!], 48000) + 23)).toBeLessThan(0.1);
  });
});

it('is minus infinity for silence and for what is too short', () => {
  expect(loudness([new Float32Array(48000)], 48000)).toBe(-Infinity);
  expect(loudness([tone(48000, [[0, 0.3]])], 48000)).toBe(-Infinity);
  expect(() => loudness([new Float32Array(3), new Float32Array(4)], 48000)).toThrow(/one length/);
});
