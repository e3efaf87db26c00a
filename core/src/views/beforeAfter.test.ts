import { sectionBiquad, type Section } from '../path/index.js';
import { describe, expect, it } from 'vitest';

import { logGrid, peaking, filterBiquads, whiteNoise, type ImpulseResponse } from '../signal/index.js';
import { beforeAndAfter } from './index.js';

const rate = 48000;
const grid = logGrid(30, 10_000, 24);
/** A loudspeaker with one resonance, and its room: noise that falls by 60 dB in 0.4 s, sound arriving at 5 ms. */
function room(): ImpulseResponse {
  const samples = new Float64Array(48000);
  samples[480 + 240] = 1;
  const tail = whiteNoise(samples.length, 3);
  for (let i = 960; i < samples.length; i++) samples[i] = 0.02 * tail[i]! * 10 ** ((-3 * (i - 960)) / 19200);
  return { samples: filterBiquads(samples, [peaking(100, 6, 2, rate)]), rate, zero: 480 };
}
const turned = (degrees: number) => degrees - 360 * Math.round(degrees / 360);
const late = (n: number, gain: number) => {
  const fir = new Float32Array(n + 1);
  fir[n] = gain;
  return fir;
};

describe('before and after', () => {
  it('a filter that only comes later and halves: the same phase, half the impulse, 6 dB less at all times', () => {
    const { phase, impulse, step, decay, filter } = beforeAndAfter(room(), late(480, 0.5), [], rate, grid);
    phase.after.forEach((v, i) => expect(Math.abs(turned(v - phase.before[i]!))).toBeLessThan(0.5));
    phase.filter.forEach((v) => expect(Math.abs(v)).toBeLessThan(1e-6));
    for (const { before, after } of [impulse, step])
      after.forEach((v, i) => expect(Math.abs(v - before[i]! / 2)).toBeLessThan(1e-3));
    decay.after.forEach((slice, k) =>
      slice.forEach((v, i) => {
        if (decay.before[k]![i]! > -50) expect(v - decay.before[k]![i]!).toBeCloseTo(-6.02, 1);
      }),
    );
    expect(filter.values[-filter.fromMs * 48]).toBe(1);
    expect(filter.values.filter((v) => Math.abs(v) > 1e-9)).toHaveLength(1);
  });

  it('a section has the phase of its transfer function, and undoes that of the resonance it undoes', () => {
    const section: Section = { kind: 'peak', frequency: 100, gainDb: -6, q: 2 };
    const { phase } = beforeAndAfter(room(), null, [section], rate, grid);
    const { b0, b1, b2, a1, a2 } = sectionBiquad(section, rate);
    grid.forEach((f, i) => {
      const w = (2 * Math.PI * f) / rate;
      const [c1, s1, c2, s2] = [Math.cos(w), -Math.sin(w), Math.cos(2 * w), -Math.sin(2 * w)];
      const top = Math.atan2(b1 * s1 + b2 * s2, b0 + b1 * c1 + b2 * c2);
      const under = Math.atan2(a1 * s1 + a2 * s2, 1 + a1 * c1 + a2 * c2);
      expect(Math.abs(phase.filter[i]! - ((top - under) * 180) / Math.PI), `${f} Hz`).toBeLessThan(0.3);
    });
    // a resonance of +6 dB and a section of -6 dB, same Q, are each other's inverse: what is left is the bare room
    const bare = { ...room(), samples: filterBiquads(room().samples, [peaking(100, -6, 2, rate)]) };
    const alone = beforeAndAfter(bare, null, [], rate, grid).phase.before;
    phase.after.forEach((v, i) => expect(Math.abs(turned(v - alone[i]!))).toBeLessThan(1));
  });
});
