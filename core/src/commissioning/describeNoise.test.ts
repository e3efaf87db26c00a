import { describe, expect, it } from 'vitest';
import { pinkNoise, shapedNoise } from '../signal/index.js';
import { describeNoise } from './describeNoise.js';

const RATE = 48000;
const SECONDS = 2;
const pink = (seed: number) => pinkNoise(SECONDS * RATE, RATE, seed).map((v) => 0.001 * v);
const lines = (...parts: [hz: number, rms: number][]) =>
  Float64Array.from({ length: SECONDS * RATE }, (_, i) =>
    parts.reduce(
      (sum, [hz, rms]) => sum + Math.SQRT2 * rms * Math.sin((2 * Math.PI * hz * i) / RATE + hz),
      0,
    ),
  );
const plus = (a: Float64Array, b: Float64Array) => a.map((v, i) => v + b[i]!);

it('says nothing of plain noise, for thirty seeds', () => {
  for (let seed = 1; seed <= 30; seed++) expect(describeNoise(pink(seed), RATE), `seed ${seed}`).toEqual([]);
});

describe('hum', () => {
  it.each([50, 60] as const)('at %i Hz and its multiples', (mains) => {
    const hum = lines([mains, 1e-3], [2 * mains, 3e-4], [3 * mains, 2e-4]);
    const [first] = describeNoise(plus(pink(1), hum), RATE);
    expect(first).toMatchObject({ kind: 'hum', mainsHz: mains });
    expect(first!.kind === 'hum' && first!.multiples.slice(0, 3)).toEqual([mains, 2 * mains, 3 * mains]);
  });
  it('one line at 50 Hz alone is a tone at most, not hum', () => {
    expect(describeNoise(plus(pink(1), lines([50, 1e-3])), RATE).some((t) => t.kind === 'hum')).toBe(false);
  });
});

it('a whistle is a tone, with its frequency', () => {
  const traits = describeNoise(plus(pink(2), lines([3150, 2e-4])), RATE);
  expect(traits).toHaveLength(1);
  expect(traits[0]!.kind === 'tone' && Math.abs(traits[0]!.frequency - 3150)).toBeLessThan(1);
});

it('traffic below 40 Hz is rumble', () => {
  const traffic = shapedNoise(SECONDS * RATE, RATE, 5, (f) => (f > 15 && f < 40 ? 1 : 0)).map(
    (v) => 0.004 * v,
  );
  expect(describeNoise(plus(pink(3), traffic), RATE)).toMatchObject([{ kind: 'rumble' }]);
});

it('needs a second', () => {
  expect(() => describeNoise(new Float64Array(100), RATE)).toThrow(/1 s/);
});
