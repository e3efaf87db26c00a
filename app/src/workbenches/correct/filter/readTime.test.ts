import type { BeforeAfter } from '@pebble-hall/core/views';
import { describe, expect, it } from 'vitest';
import { readTime } from './readTime';

const grid = Float64Array.of(50, 100, 200);
/** One millisecond a sample, from 12 ms ahead to 60 after. */
const curve = (at: Record<number, number>) => {
  const values = new Float32Array(72);
  for (const [ms, v] of Object.entries(at)) values[Number(ms) + 12] = v;
  return values;
};
const none = { latencyS: 0, ahead: [] };
const times = { fromMs: -12, stepMs: 1 };
const tail = (v: number) => Object.fromEntries(Array.from({ length: 57 }, (_, i) => [i + 3, v]));
const data = (change: Partial<BeforeAfter> = {}): BeforeAfter => ({
  phase: { before: grid, after: grid, filter: Float64Array.of(3, -48, 10) },
  impulse: { ...times, before: curve({ 0: 1, ...tail(0.1) }), after: curve({ 0: 1, ...tail(0.05) }) },
  step: { ...times, before: curve(tail(0.4)), after: curve(tail(0.1)) },
  decay: {
    frequency: Float64Array.of(40, 80),
    afterS: [0, 0.2],
    before: [Float64Array.of(0, -3), Float64Array.of(-12, -50)],
    after: [Float64Array.of(-8, -3), Float64Array.of(-21, -50)],
  },
  filter: { ...times, values: curve({ 0: 1 }) },
  ...change,
});

describe('phase and time in words', () => {
  it('phase: by how much the filter turns it at most, and how much later sound comes', () => {
    expect(readTime('Phase', data(), grid, none)).toEqual([
      'The filter turns phase by 48° at most, at 100 Hz.',
      'It makes the sound no later.',
    ]);
    const straight = { phase: { before: grid, after: grid, filter: Float64Array.of(0, 0.2, 0) } };
    expect(readTime('Phase', data(straight), grid, { latencyS: 0.085, ahead: [] })).toEqual([
      'The filter leaves phase as it is.',
      'It makes the sound 85.0 ms later; all channels wait for each other.',
    ]);
  });

  it('impulse: what sounds ahead, and what follows against the direct sound', () => {
    // half the amplitude is 6.02 dB less; the direct sound stays
    expect(readTime('Impulse', data(), grid, none).slice(0, 2)).toEqual([
      'Nothing of the filter sounds ahead of the arrival.',
      'What follows within 60 ms is 6.0 dB quieter against the direct sound than as found.',
    ]);
    const ahead = [{ centre: 125, aheadS: 0.02, aheadDb: -9, plainDb: -30 }];
    expect(readTime('Impulse', data(), grid, { latencyS: 0, ahead })[0]).toMatch(/125 Hz.*−9\.0 dB.*20 ms/);
  });

  it('step: whether the lows die away sooner', () => {
    expect(readTime('Step', data(), grid, none)).toEqual([
      'From 20 to 60 ms the step swings by 0.10 of its height as found, 0.40 before: the lows die away sooner.',
    ]);
  });

  it('decay: where less is left, where more, and nothing of what is noise', () => {
    expect(readTime('Decay', data(), grid, none)).toEqual([
      'At 40 Hz, 9.0 dB less is left after 200 ms than as found.',
    ]);
    const same = data().decay;
    expect(readTime('Decay', data({ decay: { ...same, after: same.before } }), grid, none)).toEqual([
      'Below 500 Hz sound dies away as it did.',
    ]);
    const swapped = { ...same, before: same.after, after: same.before };
    expect(readTime('Decay', data({ decay: swapped }), grid, none)).toEqual([
      'At 40 Hz, 9.0 dB more is left after 200 ms than as found. It was raised there.',
    ]);
  });
});
