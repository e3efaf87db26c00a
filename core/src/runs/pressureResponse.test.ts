import { describe, expect, it } from 'vitest';
import { octaveEnergy } from '../acoustics/index.js';
import { OCTAVES } from '../room/index.js';
import { octaveBands } from '../signal/index.js';
import { BIN_S, type Heard } from '../tracing/index.js';
import { pressureResponse, reflectionDensity } from './index.js';

const BINS = 800;
const request = { rate: 48_000, volume: 400, speed: 343, seed: 5 };

/** A decay by 60 dB in a second, with so much of it in each octave. */
function decaying(octaveDb: number[], direct: number): Heard {
  const energy = new Float64Array(8 * BINS);
  octaveDb.forEach((db, o) => {
    for (let b = 0; b < BINS; b++) energy[o * BINS + b] = 10 ** (db / 10) * 10 ** (-6 * b * BIN_S);
  });
  return {
    directS: 0.02,
    arrivals:
      direct > 0
        ? [
            {
              laterS: 0,
              distance: 1 / direct,
              energy: new Float64Array(8).fill(direct ** 2),
              going: { x: 1, y: 0, z: 0 },
              faces: [],
              points: [],
            },
          ]
        : [],
    bins: BINS,
    energy,
    lateral: energy,
    counts: new Float64Array(BINS).fill(4),
    axis: { x: 0, y: 1, z: 0 },
    directions: null,
  };
}

describe('a response from energies', () => {
  it('has the direct sound where it belongs, as large as it is', () => {
    const { samples, zero } = pressureResponse(
      decaying(
        Array.from({ length: 8 }, () => -200),
        0.25,
      ),
      request,
    );
    expect(samples.reduce((best, v, i) => (Math.abs(v) > Math.abs(samples[best]!) ? i : best), 0)).toBe(zero);
    expect(samples[zero]).toBeCloseTo(0.25, 2);
  });

  it('has the energy of each octave, against a pulse through the same octave', () => {
    const levels = [-3, -4, -2, -3, -5, -6, -4, -5];
    const pulse = new Float64Array(4096);
    pulse[100] = 1;
    const bands = octaveBands(1, 60, 9000);
    const sum = Array.from({ length: BINS }, (_, b) => 10 ** (-6 * b * BIN_S)).reduce((a, b) => a + b, 0);
    // chance has its part in each: on the mean of some
    const mean = new Float64Array(8);
    for (let seed = 1; seed <= 12; seed++) {
      const { samples } = pressureResponse(decaying(levels, 0), { ...request, seed });
      bands.forEach((band, o) => (mean[o] = mean[o]! + octaveEnergy(samples, band, 48_000) / 12));
    }
    OCTAVES.forEach((hz, o) => {
      // octaves share what lies between them, so a loud neighbour is heard
      const wanted = levels[o]! + 10 * Math.log10(sum);
      const found = 10 * Math.log10(mean[o]! / octaveEnergy(pulse, bands[o]!, 48_000));
      expect(Math.abs(found - wanted), `${hz} Hz`).toBeLessThan(1.5);
    });
  });

  it('dies away as the energy does', () => {
    const { samples, zero } = pressureResponse(
      decaying(
        Array.from({ length: 8 }, () => 0),
        0,
      ),
      request,
    );
    const energyOf = (fromS: number) => {
      let sum = 0;
      for (let i = 0; i < 9600; i++) sum += samples[zero + Math.round(fromS * 48_000) + i]! ** 2;
      return 10 * Math.log10(sum);
    };
    expect(energyOf(0) - energyOf(0.3)).toBeCloseTo(18, 0);
  });

  it('has single reflections early and many late, as the volume asks', () => {
    const flat = Array.from({ length: 8 }, () => 0);
    const large = pressureResponse(decaying(flat, 0), { ...request, volume: 20_000 });
    const busy = (from: number, to: number) => {
      let count = 0;
      const [a, b] = [from, to].map((s) => large.zero + Math.round(s * 48_000)) as [number, number];
      const most = Math.max(...large.samples.slice(a, b).map(Math.abs));
      for (let i = a; i < b; i++) if (Math.abs(large.samples[i]!) > 0.03 * most) count++;
      return count / (b - a);
    };
    expect(busy(0.3, 0.325)).toBeGreaterThan(1.8 * busy(0.005, 0.03));
  });

  it('of the same seed it is the same, of another it is not', () => {
    const heard = decaying(
      Array.from({ length: 8 }, () => 0),
      1,
    );
    expect(pressureResponse(heard, request).samples).toEqual(pressureResponse(heard, request).samples);
    expect(pressureResponse(heard, { ...request, seed: 6 }).samples).not.toEqual(
      pressureResponse(heard, request).samples,
    );
  });
});

describe('density of reflections', () => {
  it('grows with the square of time, as any room of this volume has it', () => {
    const heard = decaying(
      Array.from({ length: 8 }, () => 0),
      1,
    );
    const { askedPerMs } = reflectionDensity(heard, 1000, 340, 50);
    // 0.1 s after the sound was sent: 4 pi 340^3 0.01 / 1000 in a second
    expect(askedPerMs[79]! + askedPerMs[80]!).toBeCloseTo((2 * (4 * Math.PI * 340 ** 3 * 0.01)) / 1e6, 2);
  });
  it('tells from when on there are enough', () => {
    const heard = decaying(
      Array.from({ length: 8 }, () => 0),
      0,
    );
    heard.counts.forEach((_, b) => (heard.counts[b] = b < 200 ? 4 : 80));
    expect(reflectionDensity(heard, 1000, 340, 50).denseFromS).toBeCloseTo(0.2, 2);
    expect(reflectionDensity(heard, 1000, 340, 100).denseFromS).toBeNull();
  });
});
