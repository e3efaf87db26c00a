import { describe, expect, it } from 'vitest';
import { biquadTrace, filterBiquads, peaking, whiteNoise } from '../signal/index.js';
import { averageCurves } from './averageCurves.js';
import { History } from './history.js';
import { InputMeter } from './inputMeter.js';
import { LiveDesk } from './liveDesk.js';
import type { LiveMeasurement, LiveSettings } from './liveSetup.js';

const RATE = 48_000;
const BLOCK = 2048;
const FILTER = [peaking(400, 6, 1, RATE)];
const SECONDS = 8;
const source = Float32Array.from(whiteNoise(SECONDS * RATE, 1), (v) => 0.1 * v);
const later = (by: number, of: ArrayLike<number> = source) =>
  Float32Array.from({ length: source.length }, (_, i) => (i >= by ? of[i - by]! : 0));
const filtered = Float32Array.from(filterBiquads(source, FILTER));

const measurement = (change: Partial<LiveMeasurement> = {}): LiveMeasurement => ({
  id: 'a',
  name: 'Row 4',
  input: 1,
  reference: 2,
  delayS: 0,
  gainDb: 0,
  inverted: false,
  isTracked: false,
  ...change,
});
const settings = (change: Partial<LiveSettings> = {}): LiveSettings => ({
  measurements: [measurement()],
  blockLength: 'merged',
  averaging: { kind: 'for ever' },
  levels: 'complex',
  average: 'none',
  pairs: [],
  soundInput: null,
  spectrum: null,
  ...change,
});

/** Streams inputs 1 to n, and the source as the generator. */
function stream(desk: LiveDesk, channels: Float32Array[], fromS = 0, toS = SECONDS) {
  for (let at = fromS * RATE; at + BLOCK <= toS * RATE; at += BLOCK)
    desk.take({
      fromFrame: at,
      channels: channels.map((c) => c.subarray(at, at + BLOCK)),
      generator: source.subarray(at, at + BLOCK),
    });
}
const db = (re: number, im: number) => 10 * Math.log10(re * re + im * im);
const deg = (re: number, im: number) => (Math.atan2(im, re) * 180) / Math.PI;

describe('a session', () => {
  it('measures inputs against each other and against the generator, each with a delay of its own', () => {
    const desk = new LiveDesk(
      RATE,
      [1, 2, 3],
      settings({
        measurements: [
          measurement({ delayS: 480.25 / RATE }),
          measurement({
            id: 'b',
            input: 3,
            reference: 'generator',
            delayS: 960 / RATE,
            gainDb: -6,
            inverted: true,
          }),
        ],
      }),
    );
    stream(desk, [later(480, filtered), source, later(960)]);
    const { measured, heardS, lostSamples } = desk.read();
    expect(heardS).toBeCloseTo(SECONDS, 1);
    expect(lostSamples).toBe(0);
    const [a, b] = measured;
    const want = biquadTrace(FILTER, desk.grid, RATE);
    desk.grid.forEach((f, n) => {
      if (f < 30 || f > 18_000) return;
      // the delay that was set is a quarter of a sample too long
      const early = (360 * f * 0.25) / RATE;
      expect(db(a!.curve!.re[n]!, a!.curve!.im[n]!), `${f}`).toBeCloseTo(db(want.re[n]!, want.im[n]!), 0);
      const off = deg(a!.curve!.re[n]!, a!.curve!.im[n]!) - deg(want.re[n]!, want.im[n]!) - early;
      expect(Math.abs(off), `${f}`).toBeLessThan(2);
      expect(db(b!.curve!.re[n]!, b!.curve!.im[n]!)).toBeCloseTo(-6, 1);
      expect(Math.abs(deg(b!.curve!.re[n]!, b!.curve!.im[n]!))).toBeGreaterThan(179);
    });
  });

  it('tells how often samples never came, and which input is silent', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ blockLength: 4096 }));
    stream(desk, [new Float32Array(source.length), source], 0, 2);
    expect(desk.read().measured[0]).toMatchObject({ state: 'silent', curve: null });
    desk.take({
      fromFrame: 3 * RATE,
      channels: [source.subarray(0, BLOCK), source.subarray(0, BLOCK)],
      generator: source.subarray(0, BLOCK),
    });
    expect(desk.read().lostSamples).toBe(3 * RATE - BLOCK * Math.floor((2 * RATE) / BLOCK));
  });

  it('goes on when a delay is nudged by little, and begins anew when it is set elsewhere', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ blockLength: 16_384 }));
    stream(desk, [later(40, filtered), source], 0, 4);
    const nudged = settings({ blockLength: 16_384, measurements: [measurement({ delayS: 40 / RATE })] });
    desk.change(nudged);
    const { curve, blocks } = desk.read().measured[0]!;
    expect(blocks).toBeGreaterThan(10);
    const at = desk.grid.findIndex((f) => f > 5000);
    const want = biquadTrace(FILTER, desk.grid.subarray(at, at + 1), RATE);
    expect(deg(curve!.re[at]!, curve!.im[at]!)).toBeCloseTo(deg(want.re[0]!, want.im[0]!), 0);
    desk.change({ ...nudged, measurements: [measurement({ delayS: 0.02 })] });
    expect(desk.read().measured[0]!.curve).toBeNull();
  });

  it('finds a delay that nobody has set, by the whole band and by a part of it', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings());
    stream(desk, [later(2035, filtered), source], 0, 6);
    expect(desk.find('a')!.delayS * 1000).toBeCloseTo(2035 / 48, 2);
    expect(desk.find('a', { from: 30, to: 100 })!.delayS * 1000).toBeCloseTo(2035 / 48, 0);
    expect(desk.find('nobody')).toBeNull();
    // set already, it is the same
    desk.change(settings({ measurements: [measurement({ delayS: 0.03 })] }));
    expect(desk.find('a')!.delayS * 1000).toBeCloseTo(2035 / 48, 2);
  });

  it('tracks a delay that changes, and only where it is asked to', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ measurements: [measurement({ isTracked: true })] }));
    const delay = () => desk.read().measured[0]!.delayS * RATE;
    stream(desk, [later(100), source], 0, 2);
    expect(delay()).toBe(0);
    desk.track();
    expect(delay()).toBeCloseTo(100, 1);
    stream(desk, [later(130), source], 2, 5);
    desk.track();
    expect(delay()).toBeCloseTo(130, 1);
    expect(desk.find('a')!.delayS * RATE).toBeCloseTo(130, 1);
    // another thing that is changed leaves it; a delay by hand, and no tracking, are obeyed
    desk.change(settings({ average: 'power', measurements: [measurement({ isTracked: true, gainDb: 3 })] }));
    expect(delay()).toBeCloseTo(130, 1);
    desk.change(settings({ measurements: [measurement({ delayS: 120 / RATE, isTracked: true })] }));
    expect(delay()).toBeCloseTo(120, 6);
    desk.change(settings());
    stream(desk, [later(160), source], 5, 7);
    desk.track();
    expect(delay()).toBe(0);
  });

  it('looks at delays that are not tracked too, and tells whether they hold', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings());
    const still = later(100);
    for (let s = 0; s < 4; s++) {
      stream(desk, [still, source], s, s + 1.5);
      desk.track();
    }
    const { seen, delayS } = desk.read().measured[0]!;
    expect(delayS).toBe(0);
    expect(seen!.delayS * RATE).toBeCloseTo(100, 1);
    expect(seen!.holds).toBe(true);
    stream(desk, [later(140), source], 5, 7);
    desk.track();
    expect(desk.read().measured[0]!.seen!.holds).toBe(false);
  });

  it('takes off what a microphone reads over the truth', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ blockLength: 4096 }));
    const correctionDb = desk.grid.map((f) => (f > 1000 ? 6 : -3));
    desk.change(settings({ blockLength: 4096, measurements: [measurement({ correctionDb })] }));
    stream(desk, [source, source], 0, 2);
    const { curve } = desk.read().measured[0]!;
    const at = (f: number) => desk.grid.findIndex((v) => v >= f);
    expect(db(curve!.re[at(500)]!, curve!.im[at(500)]!)).toBeCloseTo(3, 6);
    expect(db(curve!.re[at(5000)]!, curve!.im[at(5000)]!)).toBeCloseTo(-6, 6);
  });

  it('stands still while it is paused; meters go on', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ blockLength: 4096 }));
    stream(desk, [source, source], 0, 1);
    const before = desk.read().measured[0]!.blocks;
    desk.isPaused = true;
    stream(desk, [later(7, source).map((v) => 3 * v), source], 1, 2);
    const { measured, inputs } = desk.read();
    expect(measured[0]!.blocks).toBe(before);
    expect(inputs[0]!.levelDb).toBeCloseTo(-20 + 9.54, 0);
    desk.isPaused = false;
    desk.reset();
    expect(desk.read().measured[0]!.curve).toBeNull();
  });

  it('gives the impulse response with its arrival where the delay that was set is over', () => {
    const desk = new LiveDesk(
      RATE,
      [1, 2],
      settings({ blockLength: 16_384, measurements: [measurement({ delayS: 0.01 })] }),
    );
    stream(desk, [later(480), source], 0, 3);
    const { samples, zero } = desk.impulse('a')!;
    let peak = 0;
    samples.forEach((v, i) => (Math.abs(v) > Math.abs(samples[peak]!) ? (peak = i) : 0));
    expect(peak).toBe(zero);
    expect(samples[peak]).toBeCloseTo(1, 1);
  });

  it('meters the sound pressure of one input', () => {
    const desk = new LiveDesk(RATE, [1, 2], settings({ soundInput: 2 }));
    expect(desk.read().sound!.Z.fastDb).toBe(-Infinity);
    stream(desk, [source, source], 0, 3);
    expect(desk.read().sound!.Z.slowDb).toBeCloseTo(-20, 0);
    desk.change(settings());
    expect(desk.read().sound).toBeNull();
  });

  it('analyses what is measured as spectra, where they are wanted', () => {
    const spectrum = { bands: 3, weighting: 'Z', averaging: { kind: 'for ever' } } as const;
    const desk = new LiveDesk(RATE, [1, 2], settings({ spectrum, soundInput: 2 }));
    stream(desk, [source, source], 0, 4);
    const { spectra, octaves } = desk.read();
    expect(spectra.map((s) => s.input)).toEqual([1]);
    expect(spectra[0]!.reading.overallDb).toBeCloseTo(-20, 0);
    expect(octaves!.frequency).toHaveLength(10);
    desk.reset();
    expect(desk.read().spectra[0]!.reading.overallDb).toBe(-Infinity);
    expect(desk.heardOf(2, 1)).toHaveLength(RATE);
    expect(desk.heardOf(9, 1)).toBeNull();
    desk.change(settings());
    expect(desk.read()).toMatchObject({ spectra: [], octaves: null });
  });

  it('refuses a ninth measurement', () => {
    const nine = Array.from({ length: 9 }, (_, i) => measurement({ id: String(i) }));
    expect(() => new LiveDesk(RATE, [1, 2], settings({ measurements: nine }))).toThrow(/8 at most/);
  });
});

describe('averages of curves', () => {
  const curve = (re: number[], im: number[], coherence: number[]) => ({
    frequency: Float64Array.of(100, 200),
    re: Float64Array.from(re),
    im: Float64Array.from(im),
    coherence: Float64Array.from(coherence),
  });
  const opposite = [curve([1, 1], [0, 0], [1, 0.9]), curve([-1, 0], [0, 1], [1, 0.1])];

  it('of powers keep the level, of complex values cancel', () => {
    const power = averageCurves([curve([3, 1], [0, 0], [1, 1]), curve([1, 1], [0, 0], [1, 1])], 'power');
    expect(power.re[0]).toBeCloseTo(Math.sqrt(5), 12);
    const complex = averageCurves(opposite, 'complex');
    expect(Math.hypot(complex.re[0]!, complex.im[0]!)).toBeCloseTo(0, 12);
    expect([complex.re[1], complex.im[1]]).toEqual([0.5, 0.5]);
  });

  it('by coherence each counts as much as it is sure', () => {
    const weighted = averageCurves(opposite, 'coherence');
    expect(weighted.re[1]).toBeCloseTo(0.9, 12);
    expect(weighted.im[1]).toBeCloseTo(0.1, 12);
    expect(weighted.coherence[1]).toBeCloseTo(0.5, 12);
  });

  it('leave out what is not known, and refuse other grids', () => {
    const half = averageCurves(
      [curve([NaN, 2], [NaN, 0], [NaN, 1]), curve([4, 4], [0, 0], [1, 1])],
      'complex',
    );
    expect([...half.re]).toEqual([4, 3]);
    const other = { ...opposite[0]!, frequency: Float64Array.of(1) };
    expect(() => averageCurves([opposite[0]!, other], 'power')).toThrow(/grids/);
  });
});

describe('meters and history', () => {
  it('tell level, held peak, and what was clipped or no number', () => {
    const meter = new InputMeter(3, RATE);
    const tone = Float32Array.from(
      { length: RATE },
      (_, i) => 0.5 * Math.sin((2 * Math.PI * 1000 * i) / RATE),
    );
    meter.process(tone);
    expect(meter.read().levelDb).toBeCloseTo(20 * Math.log10(0.5 / Math.SQRT2), 1);
    expect(meter.read().peakDb).toBeCloseTo(-6.02, 1);
    meter.process(Float32Array.of(1, -1, NaN, 0.2));
    expect(meter.read()).toMatchObject({ input: 3, clipped: 2, broken: 1 });
    expect(meter.read().peakDb).toBeCloseTo(0, 6);
    meter.process(new Float32Array(3 * RATE));
    expect(meter.read().peakDb).toBe(-Infinity);
  });

  it('keep the last samples in their order, and forget what lies before a gap', () => {
    const history = new History(2, 10);
    const count = (from: number, length: number) => Float32Array.from({ length }, (_, i) => from + i);
    for (let at = 0; at < 24; at += 4) history.push(at, [count(at, 4), count(100 + at, 4)]);
    expect([...history.last(0)]).toEqual([...count(14, 10)]);
    expect([...history.last(1, 3)]).toEqual([121, 122, 123]);
    history.push(40, [count(40, 3), count(140, 3)]);
    expect([...history.last(0)]).toEqual([40, 41, 42]);
  });

  it('makes one curve of a microphone on the floor and one at the ear', () => {
    const measurements = [measurement(), measurement({ id: 'floor', input: 3 })];
    const pairs = [{ id: 'pair-a', earId: 'a', floorId: 'floor', crossoverHz: 300 }];
    const desk = new LiveDesk(RATE, [1, 2, 3], settings({ measurements, pairs }));
    // the floor hears twice the pressure, half a millisecond earlier
    const louder = later(0).map((v) => 2 * v);
    stream(desk, [later(24), source, louder], 0, 4);
    const [pair] = desk.read().pairs;
    expect(pair!.levelDb).toBeCloseTo(-6.02, 1);
    expect(pair!.delayS).toBeCloseTo(0.0005, 5);
    const n = desk.grid.findIndex((f) => f > 100);
    expect(db(pair!.curve.re[n]!, pair!.curve.im[n]!)).toBeCloseTo(0, 1);
    // while one of them is silent there is none
    desk.change(settings({ measurements: [measurements[0]!], pairs }));
    expect(desk.read().pairs).toEqual([]);
  });

  it('averages each measurement as it asks for itself, the others as all', () => {
    const own = { kind: 'exponential' as const, seconds: 0.1 };
    const measurements = [measurement(), measurement({ id: 'quick', averaging: own })];
    const desk = new LiveDesk(RATE, [1, 2], settings({ measurements, blockLength: 4096 }));
    stream(desk, [source, source], 0, 4);
    // twice as loud from then on
    stream(desk, [source.map((v) => 2 * v), source], 4, 5);
    const level = (id: string) => {
      const { curve } = desk.read().measured.find((m) => m.id === id)!;
      const n = desk.grid.findIndex((f) => f > 1000);
      return db(curve!.re[n]!, curve!.im[n]!);
    };
    expect(level('quick')).toBeCloseTo(6.02, 1);
    expect(level('a')).toBeLessThan(3);
    // another averaging begins anew, and leaves the other alone
    desk.change(settings({ measurements: [measurement(), measurement({ id: 'quick' })], blockLength: 4096 }));
    const [a, quick] = desk.read().measured;
    expect(quick!.curve).toBeNull();
    expect(a!.curve).not.toBeNull();
  });
});
