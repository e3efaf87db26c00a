import { describe, expect, it } from 'vitest';
import { realFft } from '../signal/index.js';
import { generatorSource, type GeneratorSignal } from './generatorSource.js';
import { GeneratorPlayer } from './generatorPlayer.js';

const RATE = 48_000;

/** Plays for a while after the ramp, in quanta of an audio thread. */
function played(signal: GeneratorSignal, seconds: number, gain = 0.1, alternateS: number | null = null) {
  const player = new GeneratorPlayer(RATE);
  player.play({ source: generatorSource(signal, RATE), gain, alternateS });
  const length = 128 * Math.ceil((seconds * RATE) / 128);
  const [drive, one, two] = [0, 1, 2].map(() => new Float32Array(length)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  for (let at = 0; at < length; at += 128)
    player.read(drive.subarray(at, at + 128), [one.subarray(at, at + 128), two.subarray(at, at + 128)]);
  return { drive, one, two, player };
}
const rms = (x: Float32Array) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);
const later = (x: Float32Array, seconds = 0.2) => x.subarray(Math.round(seconds * RATE));

/** Power per octave around each centre, dB, by one long transform. */
function octaves(x: Float32Array, centres: number[]): number[] {
  const size = 2 ** Math.floor(Math.log2(x.length));
  const { re, im } = realFft(Float64Array.from(x.subarray(0, size)));
  return centres.map((centre) => {
    let sum = 0;
    const [from, to] = [centre / Math.SQRT2, centre * Math.SQRT2].map((f) => Math.round((f * size) / RATE));
    for (let k = from!; k < to!; k++) sum += re[k]! ** 2 + im[k]! ** 2;
    return 10 * Math.log10(sum);
  });
}

describe('what the generator plays', () => {
  it.each<[string, GeneratorSignal]>([
    ['pink', { kind: 'pink', period: null }],
    ['pink that repeats', { kind: 'pink', period: 65_536 }],
  ])('%s has the same power in every octave', (_, signal) => {
    const levels = octaves(later(played(signal, 24).drive), [63, 125, 250, 500, 1000, 2000, 4000, 8000]);
    const mean = levels.reduce((sum, v) => sum + v, 0) / levels.length;
    for (const level of levels) expect(Math.abs(level - mean)).toBeLessThan(0.8);
  });

  it('white rises by 3 dB an octave in octaves', () => {
    const levels = octaves(later(played({ kind: 'white', period: null }, 12).drive), [250, 1000, 4000]);
    expect(levels[1]! - levels[0]!).toBeCloseTo(6.02, 0);
    expect(levels[2]! - levels[1]!).toBeCloseTo(6.02, 0);
  });

  it.each<[string, GeneratorSignal]>([
    ['pink', { kind: 'pink', period: null }],
    ['pink that repeats', { kind: 'pink', period: 32_768 }],
    ['white', { kind: 'white', period: null }],
    ['a band', { kind: 'band', fromHz: 40, toHz: 160, period: null }],
    ['a sine', { kind: 'sine', hz: 997 }],
    ['tones', { kind: 'multi-tone' }],
    ['a sweep', { kind: 'sweep', seconds: 1 }],
    ['a file', { kind: 'file', samples: Float32Array.of(0.5, -0.25, 0.1) }],
  ])('%s is as loud as it is set, RMS', (_, signal) => {
    expect(20 * Math.log10(rms(later(played(signal, 20.2, 0.05).drive)) / 0.05)).toBeCloseTo(0, 0);
  });

  it('a band ends where it was told to', () => {
    const [low, inside, high] = octaves(
      later(played({ kind: 'band', fromHz: 80, toHz: 320, period: 65_536 }, 6).drive),
      [20, 160, 1280],
    );
    expect(inside! - low!).toBeGreaterThan(35);
    expect(inside! - high!).toBeGreaterThan(35);
  });

  it('noise with a period repeats to the sample', () => {
    const { drive } = played({ kind: 'pink', period: 4096 }, 1);
    for (let i = 10_000; i < 14_096; i += 97) expect(drive[i + 4096]).toBe(drive[i]);
  });

  it('a sine has its frequency and is smooth across blocks', () => {
    const { drive } = played({ kind: 'sine', hz: 997 }, 1);
    for (let i = 10_000; i < 11_000; i++) {
      // x[n+1] + x[n-1] = 2 cos(w) x[n]
      const w = (2 * Math.PI * 997) / RATE;
      expect(drive[i + 1]! + drive[i - 1]!).toBeCloseTo(2 * Math.cos(w) * drive[i]!, 5);
    }
  });
});

describe('levels and ways', () => {
  it('come up and go down in a ramp, and end at nothing', () => {
    const { drive, player } = played({ kind: 'sine', hz: 1000 }, 0.2, 0.5);
    expect(rms(drive.subarray(0, 48))).toBeLessThan(0.02);
    player.play({ source: null, gain: 0, alternateS: null });
    const rest = new Float32Array(9600);
    player.read(rest, []);
    expect(rms(rest.subarray(0, 480))).toBeGreaterThan(0.3);
    expect(rest.subarray(7200).every((v) => v === 0)).toBe(true);
    expect(player.isSilent).toBe(true);
    let jump = 0;
    for (let i = 1; i < rest.length; i++) jump = Math.max(jump, Math.abs(rest[i]! - rest[i - 1]!));
    // no steeper than the sine itself
    expect(jump).toBeLessThan(0.5 * Math.SQRT2 * 2 * Math.PI * (1000 / RATE) * 1.05);
  });

  it('another source comes when the one before has faded', () => {
    const { player } = played({ kind: 'sine', hz: 1000 }, 0.2, 0.5);
    player.play({ source: generatorSource({ kind: 'sine', hz: 4000 }, RATE), gain: 0.5, alternateS: null });
    const then = new Float32Array(9600);
    player.read(then, []);
    const crossings = (x: Float32Array) =>
      x.reduce((n, v, i) => (i > 0 && v > 0 !== x[i - 1]! > 0 ? n + 1 : n), 0);
    expect(crossings(then.subarray(0, 1200))).toBeLessThan(60);
    expect(crossings(then.subarray(7200))).toBeGreaterThan(380);
  });

  it('another level of the same source does not begin it anew', () => {
    const { player } = played({ kind: 'sine', hz: 1000 }, 0.2, 0.5);
    player.play({ source: 'same', gain: 0.25, alternateS: null });
    const then = new Float32Array(9600);
    player.read(then, []);
    expect(rms(then.subarray(0, 240))).toBeGreaterThan(0.4);
    expect(rms(then.subarray(7200))).toBeCloseTo(0.25, 3);
  });

  it('alternate between two ways, never both for longer than the ramp', () => {
    const { drive, one, two } = played({ kind: 'white', period: null }, 4, 0.1, 0.5);
    for (let s = 0; s < 8; s++) {
      const [from, to] = [(s * 0.5 + 0.1) * RATE, (s * 0.5 + 0.45) * RATE];
      const [a, b] = [rms(one.subarray(from, to)), rms(two.subarray(from, to))];
      expect(s % 2 === 0 ? b : a).toBe(0);
      expect(s % 2 === 0 ? a : b).toBeCloseTo(rms(drive.subarray(from, to)), 5);
    }
  });

  it('never go beyond full scale', () => {
    const { drive } = played({ kind: 'white', period: null }, 2, 0.9);
    expect(Math.max(...drive.map(Math.abs))).toBeLessThanOrEqual(1);
  });

  it('refuse what means nothing', () => {
    expect(() => generatorSource({ kind: 'pink', period: 1000 }, RATE)).toThrow(/power of two/);
    expect(() => generatorSource({ kind: 'band', fromHz: 200, toHz: 100, period: null }, RATE)).toThrow(
      /band/,
    );
    expect(() => generatorSource({ kind: 'file', samples: new Float32Array(5) }, RATE)).toThrow(/silent/);
    expect(() => generatorSource({ kind: 'sine', hz: NaN }, RATE)).toThrow(/frequency/);
  });
});
