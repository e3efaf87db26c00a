import { describe, expect, it } from 'vitest';
import { emissionInto } from '../tracing/index.js';
import { INSTRUMENTS, instrumentEmission, type InstrumentName } from './index.js';

const names = Object.keys(INSTRUMENTS) as InstrumentName[];
const level = (name: InstrumentName, x: number, y: number, z: number, octave: number) => {
  const out = new Float64Array(8);
  emissionInto(instrumentEmission(name, 0))(x, y, z, out);
  return 10 * Math.log10(out[octave]!);
};

describe('instruments', () => {
  it('send lows everywhere alike, and 0 dB on the mean', () => {
    const ways: [number, number, number][] = [
      [1, 0, 0],
      [-1, 0, 0],
      [0, 0, 1],
    ];
    for (const name of names)
      for (const way of ways) expect(Math.abs(level(name, ...way, 0))).toBeLessThan(1.5);
  });
  it('send highs along their axis: a trombone narrower than a trumpet, a violin up', () => {
    const ahead = (name: InstrumentName, octave: number) =>
      level(name, 1, 0, 0, octave) - level(name, 0, 1, 0, octave);
    // at 2 kHz the wave is 17 cm: the larger bell aims, the smaller begins to
    expect(ahead('trombone', 5)).toBeGreaterThan(ahead('trumpet', 5) + 1);
    expect(ahead('trumpet', 6)).toBeGreaterThan(ahead('trumpet', 4));
    const [c, s] = [Math.cos(Math.PI / 3), Math.sin(Math.PI / 3)];
    expect(level('violin', c, 0, s, 6)).toBeGreaterThan(level('violin', 1, 0, 0, 6) + 3);
  });
});
