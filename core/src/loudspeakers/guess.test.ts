import { describe, expect, it } from 'vitest';
import { THIRDS } from '../coverage/index.js';
import { beamwidthDeg, directivityIndexDb, layerOf } from '../directivity/index.js';
import { GUESS_KINDS, guessLoudspeaker } from './guess.js';

const BOX = { coneIn: 8, widthM: 0.28, heightM: 0.45 };

describe('a guess by kind and size', () => {
  it.each(GUESS_KINDS)('%s radiates in every third, and calls itself a guess', (kind) => {
    const guessed = guessLoudspeaker({
      kind,
      ...BOX,
      ...(kind === 'column' ? { coneIn: 3, heightM: 0.9 } : {}),
    });
    expect(guessed.about).toMatch(/^A guess/);
    for (const f of THIRDS.filter((_, i) => i % 4 === 0))
      expect(layerOf(guessed.ways, f, 343).re.every(Number.isFinite)).toBe(true);
  });

  it('a larger cone reaches lower, a taller column is flatter, a subwoofer goes all round', () => {
    const at = (guess: Parameters<typeof guessLoudspeaker>[0], f: number) =>
      layerOf(guessLoudspeaker(guess).ways, f, 343);
    const low = (coneIn: number) => {
      const { axis } = guessLoudspeaker({ ...BOX, kind: 'cone and horn', coneIn });
      return axis.kind === 'filters' ? axis.low.frequency : NaN;
    };
    expect(low(15)).toBeLessThan(low(8));
    const column = (heightM: number) =>
      beamwidthDeg(at({ kind: 'column', coneIn: 3, widthM: 0.1, heightM }, 1000), 'vertical');
    expect(column(1.2)).toBeLessThan(0.6 * column(0.6));
    expect(directivityIndexDb(at({ ...BOX, kind: 'subwoofer', coneIn: 18 }, 40))).toBeLessThan(1);
  });

  it('refuses sizes that are none', () => {
    expect(() => guessLoudspeaker({ kind: 'two ways', ...BOX, coneIn: 0 })).toThrow(/cone in inches/);
    expect(() => guessLoudspeaker({ kind: 'two ways', ...BOX, widthM: NaN })).toThrow(/width in m/);
  });
});
