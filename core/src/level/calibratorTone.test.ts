import { describe, expect, it } from 'vitest';
import { whiteNoise } from '../signal/index.js';
import { CalibratorTone } from './calibratorTone.js';

const RATE = 48000;
interface Options {
  levelDb?: number;
  frequency?: number;
  seconds?: number;
  noiseDb?: number;
  wobbleDb?: number;
}
const sound = ({ levelDb = -26, frequency = 1000, seconds = 4, noiseDb = -90, wobbleDb = 0 }: Options) => {
  const noise = whiteNoise(seconds * RATE, 7);
  return Float64Array.from({ length: seconds * RATE }, (_, i) => {
    const swing = (wobbleDb / 2) * Math.sin((2 * Math.PI * 0.6 * i) / RATE);
    const tone = Math.SQRT2 * 10 ** ((levelDb + swing) / 20) * Math.sin((2 * Math.PI * frequency * i) / RATE);
    return tone + 10 ** (noiseDb / 20) * noise[i]!;
  });
};
const readingOf = (...signals: Float64Array[]) => {
  const watch = new CalibratorTone(RATE);
  for (const s of signals) for (let i = 0; i < s.length; i += 4800) watch.process(s.subarray(i, i + 4800));
  return watch.read();
};

describe('a tone that is right', () => {
  it.each([
    [-46, 1000],
    [-26, 1000],
    [-6, 1000],
    [-26, 990],
    [-26, 1003.7],
  ])('of %f dB at %f Hz is stable, and its level exact to 0.01 dB', (levelDb, frequency) => {
    const reading = readingOf(sound({ levelDb, frequency }));
    expect(reading.state).toBe('stable');
    if (reading.state !== 'stable') return;
    expect(Math.abs(reading.levelDb - levelDb)).toBeLessThan(0.01);
    expect(Math.abs(reading.frequency - frequency)).toBeLessThan(0.5);
  });

  it('takes three seconds to be called stable', () => {
    expect(readingOf(sound({ seconds: 2 }))).toMatchObject({ state: 'settling', heldS: 2 });
  });

  it('reads through noise 30 dB below it within 0.05 dB', () => {
    const reading = readingOf(sound({ noiseDb: -56 }));
    expect(reading.state === 'stable' && Math.abs(reading.levelDb + 26)).toBeLessThan(0.05);
  });
});

it('does not count what was lost on the way: gaps of 10 ms leave a steady tone steady', () => {
  const whole = sound({ seconds: 8 });
  const lost = whole.map((v, i) => (i % 30000 < 480 ? 0 : v));
  expect(readingOf(lost)).toMatchObject({ state: 'stable' });
  const { levelDb } = readingOf(lost) as { levelDb: number };
  expect(levelDb).toBeCloseTo(-26, 2);
});

describe('what is refused, and why', () => {
  it.each([
    ['another frequency', { frequency: 250 }, 'wrong frequency'],
    ['a frequency a little off', { frequency: 1030 }, 'wrong frequency'],
    ['a level that swings by 0.5 dB', { wobbleDb: 0.5 }, 'unsteady'],
    ['noise 15 dB below', { noiseDb: -41 }, 'noise'],
    ['noise alone', { levelDb: -120, noiseDb: -40 }, 'no tone'],
  ] as [string, Options, string][])('%s', (_, options, kind) => {
    expect(readingOf(sound(options))).toMatchObject({ state: 'refused', problem: { kind } });
  });

  it('tells hand noise, which is low, from other noise', () => {
    const rumble = sound({ levelDb: -40, frequency: 20 });
    const mixed = sound({}).map((v, i) => v + rumble[i]!);
    expect(readingOf(mixed)).toMatchObject({ problem: { kind: 'noise', low: true } });
    expect(readingOf(sound({ noiseDb: -41 }))).toMatchObject({ problem: { kind: 'noise', low: false } });
  });

  it('a clipped tone', () => {
    const clipped = sound({ levelDb: 0 }).map((v) => Math.max(-1, Math.min(1, 2 * v)));
    expect(readingOf(clipped)).toEqual({ state: 'refused', problem: { kind: 'clipped' } });
  });

  it('waits while nothing sounds, and begins anew after a break', () => {
    expect(readingOf(sound({ levelDb: -140 }))).toEqual({ state: 'waiting' });
    expect(readingOf(sound({}), sound({ levelDb: -140, seconds: 1 }), sound({ seconds: 1 })).state).toBe(
      'settling',
    );
  });
});
