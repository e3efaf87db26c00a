import { describe, expect, it } from 'vitest';
import { binFrequencies, delayTrace, realFft, shapedNoise, whiteNoise } from '../signal/index.js';
import { analyseSweep, STORED_SAMPLES } from './index.js';
import { randomSystem, recordThrough } from './testSignals.js';

const system = randomSystem(8000, 480, 5).map((v) => 0.02 * v);

describe('analyseSweep', () => {
  it('puts the direct sound where it belongs, whatever the latency of the interface', () => {
    const { sweep, ...recording } = recordThrough(system, { latency: 1234.5, noiseRms: 1e-4 });
    const { impulse, arrival, verdict } = analyseSweep(recording, sweep);
    expect(impulse.samples.length).toBe(STORED_SAMPLES);
    expect(arrival!.peakS * 48000).toBeCloseTo(480, 0);
    expect(verdict.state).toBe('good');
    expect(verdict.reasons).toEqual([]);
  });

  it('calls a silent channel silent', () => {
    const { sweep, ...recording } = recordThrough(Float64Array.of(0), { noiseRms: 1e-3 });
    const { verdict } = analyseSweep(recording, sweep);
    expect(verdict.state).toBe('failed');
    expect(verdict.reasons[0]!.kind).toBe('silent');
  });

  it('calls a sweep near the noise doubtful and says by how much', () => {
    const { sweep, ...recording } = recordThrough(system, { noiseRms: 0.12 });
    const { verdict } = analyseSweep(recording, sweep);
    expect(verdict).toMatchObject({ state: 'doubtful', reasons: [{ kind: 'near noise', aimDb: 30 }] });
  });

  it('notices clipping and a missing loopback', () => {
    const { sweep, ...recording } = recordThrough(system, { noiseRms: 1e-4 });
    const hot = recording.microphone.map((v) => Math.max(-1, Math.min(1, 40 * v)));
    const { verdict } = analyseSweep({ ...recording, microphone: hot, loopback: hot.map(() => 0) }, sweep);
    expect(verdict.state).toBe('failed');
    expect(verdict.reasons.map((r) => r.kind)).toEqual(expect.arrayContaining(['clipped', 'no loopback']));
  });

  it('measures second-order distortion', () => {
    const { sweep, ...recording } = recordThrough(Float64Array.of(0.1), { noiseRms: 1e-6 });
    const bent = recording.microphone.map((v) => v + 0.4 * v * v);
    // 0.4 x (0.05 / 2) of the amplitude a = 0.05: -40 dB
    expect(analyseSweep({ ...recording, microphone: bent }, sweep).distortionDb).toBeCloseTo(-40, 0);
  });

  it.each([
    { what: 'a wire', fir: Float64Array.of(1) },
    {
      what: 'a wire that comes late',
      fir: Float64Array.from({ length: 700 }, (_, i) => (i === 699 ? 1 : 0)),
    },
    { what: '4,096 random taps', fir: whiteNoise(4096, 3) },
    { what: '4,096 taps that decay', fir: whiteNoise(4096, 8).map((v, i) => v * Math.exp(-i / 500)) },
  ])('is within 1 % of the response of $what from 20 Hz to 20 kHz, at every frequency', ({ fir }) => {
    const { sweep, ...recording } = recordThrough(fir.map((v) => 0.1 * v));
    const { samples, zero } = analyseSweep(recording, sweep).impulse;
    const size = 1 << 17;
    const got = delayTrace(realFft(samples, size), -zero);
    const want = realFft(fir, size);
    let [energy, count, worst] = [0, 0, 0];
    binFrequencies(size, 48000).forEach((f, k) => {
      if (f < 20 || f > 20000) return;
      energy += want.re[k]! ** 2 + want.im[k]! ** 2;
      count++;
      worst = Math.max(worst, Math.hypot(10 * got.re[k]! - want.re[k]!, 10 * got.im[k]! - want.im[k]!));
    });
    expect(worst / Math.sqrt(energy / count)).toBeLessThan(0.01);
  });

  it('refuses NaN, another rate and unequal lengths', () => {
    const { sweep, ...recording } = recordThrough(system);
    const broken = Float64Array.from(recording.microphone);
    broken[777] = NaN;
    expect(() => analyseSweep({ ...recording, microphone: broken }, sweep)).toThrow(/sample 777/);
    expect(() => analyseSweep({ ...recording, rate: 44100 }, sweep)).toThrow(/44100/);
    expect(() => analyseSweep({ ...recording, loopback: new Float64Array(5) }, sweep)).toThrow(/5 loopback/);
  });
});

describe('disturbances', () => {
  const withBang = (atS: number, rms: number, seed: number) => {
    const { sweep, ...recording } = recordThrough(system, { noiseRms: 2e-4, seed });
    const bang = shapedNoise(9600, 48000, seed, (f) => (f > 60 && f < 500 ? 1 : 0));
    const microphone = Float64Array.from(recording.microphone);
    const from = Math.round((recording.silenceS + atS) * 48000);
    bang.forEach((v, i) => (microphone[from + i] = microphone[from + i]! + rms * v * Math.exp(-i / 2400)));
    return analyseSweep({ ...recording, microphone }, sweep).verdict;
  };

  it.each([0.1, 0.5, 1.3, 1.8])(
    'finds a bang %f s into the sweep, when it was and in which octaves',
    (atS) => {
      const verdict = withBang(atS, 0.02, 11);
      expect(verdict.state).toBe('doubtful');
      const bangs = verdict.reasons.flatMap((r) => (r.kind === 'disturbed' ? [r.disturbance] : []));
      const first = bangs.reduce((a, b) => (a.levelDb > b.levelDb ? a : b));
      expect(Math.abs(first.atS - atS)).toBeLessThan(0.15);
      expect(first.fromHz).toBeLessThan(400); // the bang fills 60 to 500 Hz; octaves just swept hide in the response
      expect(first.toHz).toBeGreaterThan(100);
      expect(first.toHz).toBeLessThan(3000);
    },
  );

  it.each(Array.from({ length: 12 }, (_, i) => 100 + i))(
    'stays quiet about a clean sweep (seed %i)',
    (seed) => {
      const { sweep, ...recording } = recordThrough(system, {
        noiseRms: 10 ** (-2 - (seed % 4) / 2) * 0.05,
        seed,
      });
      expect(analyseSweep(recording, sweep).verdict.reasons).toEqual([]);
    },
  );
});
