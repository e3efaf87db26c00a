import { signalPath, throughFilters, headroomOf, sectionsLevelDb, type Section } from '../path/index.js';
import { describe, expect, it } from 'vitest';
import { PROCESSOR } from './processorForTest.js';
import {
  allPass,
  biquadSpectrum,
  filterBiquads,
  highShelf,
  inverseRealFft,
  logGrid,
  lowShelf,
  multiplyTraces,
  peaking,
  powerOf,
  realFft,
  seededRandom,
  whiteNoise,
} from '../signal/index.js';
import {
  correctionFir,
  excessPhase,
  exactChannel,
  findRollOffs,
  keptEnds,
  firLevelDb,
  fitSections,
  rollOffDb,
  sharedPhase,
  STARTING_FILTER,
  targetShape,
  nonMinimumPhaseShare,
} from './index.js';

const grid = logGrid();
const rate = 48000;
const at = (f: number) => grid.findIndex((g) => g >= f);
const impulse = (length: number, ...taps: [number, number][]) => {
  const out = new Float64Array(length);
  for (const [i, v] of taps) out[i] = v;
  return out;
};
const flat = { handles: [{ frequency: 1000, levelDb: 0 }], lowLiftDb: 0, highTiltDb: 0 };

describe('target', () => {
  it('lifts the lows by what is asked for, half of it at 120 Hz, and tilts by so much per octave', () => {
    const lifted = targetShape({ ...flat, lowLiftDb: 6 }, Float64Array.of(12, 120, 1200, 12000));
    expect(lifted[0]).toBeCloseTo(5.94, 2); // 6 / (1 + 0.01)
    expect(lifted[1]).toBeCloseTo(3, 12);
    expect(lifted[2]).toBeCloseTo(0.059, 3);
    const tilted = targetShape({ ...flat, highTiltDb: -1 }, Float64Array.of(50, 4000, 8000, 16000));
    expect(tilted[0]).toBeCloseTo(0, 1);
    expect(tilted[2]! - tilted[1]!).toBeCloseTo(-1, 1);
    expect(tilted[3]! - tilted[2]!).toBeCloseTo(-1, 1);
  });
});

describe('roll-offs', () => {
  const ends = (low: number, lowOrder: number, high: number, highOrder: number) =>
    rollOffDb({ low: { cornerHz: low, order: lowOrder }, high: { cornerHz: high, order: highOrder } }, grid);
  it.each([
    [62, 3, 15000, 2],
    [35, 4, 12000, 3],
    [90, 2, 9000, 4],
  ])('finds corners %f Hz (order %i) and %f Hz (order %i) under 2 dB of ripple', (low, n, high, m) => {
    const ripple = whiteNoise(grid.length, low);
    const found = findRollOffs(
      grid,
      ends(low, n, high, m).map((v, i) => v + 2 * ripple[i]!),
    );
    expect(Math.abs(Math.log2(found.low!.cornerHz / low))).toBeLessThan(0.25);
    expect(Math.abs(found.low!.order - n)).toBeLessThanOrEqual(1);
    expect(Math.abs(Math.log2(found.high!.cornerHz / high))).toBeLessThan(0.35);
  });

  it('finds none where the response goes on to the ends, and falls by 3 dB at a corner', () => {
    expect(
      findRollOffs(
        grid,
        grid.map(() => -20),
      ),
    ).toEqual({ low: null, high: null });
    expect(rollOffDb({ low: { cornerHz: grid[100]!, order: 4 }, high: null }, grid)[100]).toBeCloseTo(
      -3.0103,
      4,
    );
    const own = { low: { cornerHz: 80, order: 4 }, high: null };
    const extension = { lowExtensionHz: 40, highExtensionHz: null };
    const extended = rollOffDb(keptEnds(own, { keepsRollOff: true, ...extension }), grid);
    expect(extended[at(40)]).toBeCloseTo(-3.01, 0);
    expect(keptEnds(own, { keepsRollOff: false, ...extension })).toEqual({ low: null, high: null });
  });

  // what falls and goes on, or falls steadily, is a loudspeaker's balance: no end
  it.each([
    ['a shelf of -5.5 dB at 6 kHz', (f: number) => -5.5 / (1 + (6000 / f) ** 2)],
    ['a shelf of -8 dB at 3 kHz', (f: number) => -8 / (1 + (3000 / f) ** 2)],
    ['a fall of 1.7 dB per octave above 1 kHz', (f: number) => -1.7 * Math.max(0, Math.log2(f / 1000))],
  ])('takes %s for no end of the band', (_, level) => {
    expect(findRollOffs(grid, grid.map(level)).high).toBeNull();
  });
});

describe('shelves and all-pass', () => {
  const levelOf = (section: ReturnType<typeof lowShelf>, f: number) => {
    const size = 65536;
    const { re, im } = biquadSpectrum([section], size);
    const k = Math.round((f * size) / rate);
    return 20 * Math.log10(Math.hypot(re[k]!, im[k]!));
  };
  it.each([-12, -3, 4, 9])(
    'reach %f dB on their side, half of it at their frequency, 0 on the other',
    (gain) => {
      expect(levelOf(lowShelf(200, gain, 0.7, rate), 0)).toBeCloseTo(gain, 9);
      expect(levelOf(lowShelf(200, gain, 0.7, rate), 200)).toBeCloseTo(gain / 2, 1);
      expect(levelOf(lowShelf(200, gain, 0.7, rate), 20000)).toBeCloseTo(0, 2);
      expect(levelOf(highShelf(3000, gain, 0.7, rate), 24000)).toBeCloseTo(gain, 9);
      expect(levelOf(highShelf(3000, gain, 0.7, rate), 20)).toBeCloseTo(0, 2);
    },
  );
  it('passes everything at level 1, turned by half a turn at its frequency', () => {
    const { re, im } = biquadSpectrum([allPass(750, 1, rate)], 65536);
    re.forEach((v, k) => expect(Math.hypot(v, im[k]!)).toBeCloseTo(1, 9));
    expect(re[1024]).toBeCloseTo(-1, 9); // bin 1024 is 750 Hz
  });
});

describe('excess phase', () => {
  it('is none for a minimum-phase response, however late it comes', () => {
    const samples = filterBiquads(impulse(32768, [700, 1]), [
      peaking(120, 8, 3, rate),
      peaking(400, -9, 4, rate),
    ]);
    const excess = excessPhase({ samples, rate, zero: 200 }, grid);
    grid.forEach((f, i) => {
      if (f > 40 && f < 1500) expect(Math.abs(excess[i]! - excess[at(300)]!)).toBeLessThan(0.12);
    });
    expect(Math.max(...nonMinimumPhaseShare(grid, [excess]))).toBe(0);
  });

  it('follows an all-pass, which turns by a whole turn, and calls its place not of minimum phase', () => {
    const samples = filterBiquads(impulse(32768, [300, 1]), [allPass(200, 6, rate)]);
    const excess = excessPhase({ samples, rate, zero: 300 }, grid);
    expect(excess[at(120)]! - excess[at(330)]!).toBeGreaterThan(1.6 * Math.PI);
    const turned = nonMinimumPhaseShare(grid, [excess]);
    expect(turned[at(200)]).toBe(1);
    expect(turned[at(800)]).toBe(0);
  });

  it('tells a dip that a louder later sound makes from one that a weaker one makes', () => {
    const dip = (later: number) =>
      excessPhase({ samples: impulse(32768, [500, 1], [740, later]), rate, zero: 500 }, grid);
    // 240 samples, 5 ms: dips at 100, 300, 500 Hz
    expect(nonMinimumPhaseShare(grid, [dip(0.9)])[at(100)]).toBe(0);
    expect(nonMinimumPhaseShare(grid, [dip(1.1)])[at(100)]).toBe(1);
    // eleven shares of an eleventh are one, not a rounding more
    expect(
      Math.max(
        ...nonMinimumPhaseShare(
          grid,
          Array.from({ length: 11 }, () => dip(1.1)),
        ),
      ),
    ).toBeLessThanOrEqual(1);
    expect(nonMinimumPhaseShare(grid, [dip(1.1), dip(0.9), dip(0.9), dip(0.9)])[at(100)]).toBeCloseTo(
      0.25,
      12,
    );
  });
});

describe('phase styles', () => {
  const gainDb = sectionsLevelDb(
    [
      { kind: 'peak', frequency: 60, gainDb: -8, q: 3 },
      { kind: 'peak', frequency: 800, gainDb: 4, q: 1 },
      { kind: 'peak', frequency: 4000, gainDb: -5, q: 2 },
    ],
    rate,
    grid,
  );

  it.each(['minimum', 'linear'] as const)('%s has the gain asked for', (style) => {
    const { fir } = correctionFir(grid, gainDb, { taps: 8192, rate, style });
    firLevelDb(fir, rate, grid).forEach((v, i) => expect(Math.abs(v - gainDb[i]!)).toBeLessThan(0.2));
  });

  it('linear is symmetrical about its latency', () => {
    const { fir, latencyS } = correctionFir(grid, gainDb, { taps: 4096, rate, style: 'linear' });
    expect(latencyS).toBe(2048 / rate);
    for (let i = 1; i < 2048; i++) expect(fir[2048 + i]).toBeCloseTo(fir[2048 - i]!, 6);
  });

  it('mixed undoes the excess phase that spots share, keeps the gain, and nothing sounds 10 ms ahead', () => {
    // all spots share an all-pass at 250 Hz; each has echoes of its own
    const random = seededRandom(5);
    const spots = Array.from({ length: 6 }, () => {
      const room = impulse(
        32768,
        [480, 1],
        ...Array.from({ length: 6 }, (): [number, number] => [
          700 + Math.floor(4000 * random.uniform()),
          0.12 * random.normal(),
        ]),
      );
      return filterBiquads(room, [allPass(250, 1.5, rate)]);
    });
    const shared = sharedPhase(
      grid,
      spots.map((samples) => excessPhase({ samples, rate, zero: 480 }, grid)),
    );
    const { fir, latencyS } = correctionFir(grid, gainDb, { taps: 8192, rate, style: 'mixed', shared });
    firLevelDb(fir, rate, grid).forEach((v, i) => expect(Math.abs(v - gainDb[i]!)).toBeLessThan(0.3));
    expect(latencyS).toBeLessThan(0.0101);
    const plain = correctionFir(grid, gainDb, { taps: 8192, rate, style: 'minimum' }).fir;
    for (const spot of spots) {
      const size = 65536;
      const through = (f: Float32Array) =>
        inverseRealFft(multiplyTraces(realFft(spot, size), realFft(f, size)));
      const [mixed, minimum] = [through(fir), through(plain)];
      const peak = Math.max(...mixed.map(Math.abs));
      const main = mixed.findIndex((v) => Math.abs(v) === peak);
      let most = 0;
      for (let i = 0; i < main - 0.01 * rate; i++) most = Math.max(most, Math.abs(mixed[i]!));
      expect(20 * Math.log10(most / peak)).toBeLessThan(-50);
      // what is left of the turn around 250 Hz is much less than without
      const turn = (samples: Float64Array) => {
        const excess = excessPhase({ samples, rate, zero: 480 }, grid);
        return Math.abs(excess[at(350)]! - excess[at(180)]!);
      };
      expect(turn(mixed)).toBeLessThan(0.35 * turn(minimum));
    }
  });

  it('refuses mixed without a shared phase, and gains that are no numbers', () => {
    expect(() => correctionFir(grid, gainDb, { taps: 512, rate, style: 'mixed' })).toThrow(/spots share/);
    expect(() =>
      correctionFir(
        grid,
        grid.map(() => NaN),
        { taps: 512, rate, style: 'linear' },
      ),
    ).toThrow(/NaN/);
    expect(() => correctionFir(grid, gainDb, { taps: 8, rate, style: 'linear' })).toThrow(/taps/);
  });
});

describe('fitSections', () => {
  const limits = {
    count: 6,
    kinds: ['peak', 'low shelf', 'high shelf'] as const,
    leastQ: 0.3,
    mostQ: 12,
    maxBoostDb: 6,
    maxCutDb: 15,
    gainStepDb: 0.1,
    frequencyStepHz: 1,
    qStep: 0.01,
    leastSectionDb: -20,
    mostSectionDb: 11,
  };
  const fit = (gain: Float64Array, over: Partial<typeof limits> = {}, span = { from: 25, to: 18000 }) =>
    fitSections(grid, gain, span, { ...limits, ...over, kinds: [...limits.kinds] }, rate);

  it('finds again the sections that a gain was made of', () => {
    const truth: Section[] = [
      { kind: 'peak', frequency: 48, gainDb: -9, q: 4 },
      { kind: 'peak', frequency: 300, gainDb: 3.5, q: 1.2 },
      { kind: 'peak', frequency: 3500, gainDb: -4.2, q: 2 },
    ];
    const { sections, errorDb } = fit(sectionsLevelDb(truth, rate, grid));
    expect(errorDb).toBeLessThan(0.05);
    for (const t of truth) {
      const near = sections.find((s) => Math.abs(Math.log2(s.frequency / t.frequency)) < 0.05)!;
      expect(near.gainDb).toBeCloseTo(t.gainDb, 0);
      expect(near.q / t.q).toBeCloseTo(1, 0);
    }
  });

  it('keeps to the limits and the steps of the PROCESSOR, and gets nearer with more sections', () => {
    const noise = whiteNoise(grid.length, 9);
    let slow = 0;
    const goal = grid.map((_, i) => 8 * (slow += 0.12 * (noise[i]! - slow)));
    const errors = [2, 5, 10, 20].map((count) => {
      const { sections, errorDb } = fit(goal, { count, mostQ: 5 });
      expect(sections.length).toBeLessThanOrEqual(count);
      for (const s of sections) {
        expect(s.q).toBeLessThanOrEqual(5);
        // one may go beyond the limits where its neighbours take it back, but not beyond what the processor holds
        expect(s.gainDb).toBeLessThanOrEqual(11);
        expect(s.gainDb).toBeGreaterThanOrEqual(-20);
        expect(Math.abs(s.gainDb * 10 - Math.round(s.gainDb * 10))).toBeLessThan(1e-6);
        expect(s.frequency).toBe(Math.round(s.frequency));
      }
      // together they do not
      expect(Math.max(...sectionsLevelDb(sections, rate, grid))).toBeLessThanOrEqual(6);
      return errorDb;
    });
    // fewer may do as well as all that are allowed
    for (let i = 1; i < errors.length; i++) expect(errors[i]).toBeLessThanOrEqual(errors[i - 1]!);
    expect(errors.at(-1)).toBeLessThan(0.8 * errors[0]!);
  });

  it('uses no more sections than help, and says what all would leave', () => {
    const made: Section[] = [
      { kind: 'peak', frequency: 60, gainDb: -9, q: 4 },
      { kind: 'peak', frequency: 400, gainDb: -5, q: 2 },
    ];
    const ripple = whiteNoise(grid.length, 3);
    const goal = sectionsLevelDb(made, rate, grid).map((v, i) => v + 0.15 * ripple[i]!);
    const { sections, errorDb, withAll } = fit(goal, { count: 10 });
    expect(sections).toHaveLength(2);
    if (withAll) {
      expect(withAll.count).toBeGreaterThan(2);
      expect(errorDb - withAll.errorDb).toBeLessThanOrEqual(0.1);
    }
  });

  it('sets no sections that take back what the others do', () => {
    // a cut beside a boost that share flanks: what is cancelled between two sections stays below 6 dB
    const goal = grid.map(
      (f) =>
        -14 * Math.exp(-((Math.log2(f / 62) * 5) ** 2)) +
        5 * Math.exp(-((Math.log2(f / 80) * 4) ** 2)) -
        9 * Math.exp(-((Math.log2(f / 105) * 6) ** 2)),
    );
    const { sections, errorDb } = fit(goal, { count: 10 });
    expect(errorDb).toBeLessThan(0.7);
    for (const a of sections)
      for (const b of sections) {
        if (a.gainDb * b.gainDb >= 0) continue;
        const [one, other] = [a, b].map((s) => sectionsLevelDb([s], rate, grid));
        expect(Math.max(...one!.map((v, i) => Math.min(Math.abs(v), Math.abs(other![i]!))))).toBeLessThan(6);
      }
  });

  it('uses only the kinds that are allowed, and nothing for nothing', () => {
    const { sections } = fitSections(
      grid,
      sectionsLevelDb([{ kind: 'high shelf', frequency: 3000, gainDb: -5, q: 0.7 }], rate, grid),
      { from: 25, to: 18000 },
      { ...limits, kinds: ['peak'] },
      rate,
    );
    expect(sections.every((s) => s.kind === 'peak')).toBe(true);
    expect(fit(grid.map(() => 0)).sections).toEqual([]);
    expect(() =>
      fit(
        grid.map(() => 0),
        { count: 25 },
      ),
    ).toThrow(/1 to 24/);
  });
});

describe('headroom', () => {
  it('finds the largest gain of a tone between bins', () => {
    const narrow = [peaking(1000.13, 7, 20, rate)];
    const { toneDb, atHz } = headroomOf(signalPath(rate, { filters: narrow }));
    expect(toneDb).toBeCloseTo(7, 3);
    expect(atHz).toBeCloseTo(1000.13, 0);
    const fir = Float32Array.of(0.5, -0.25, 0.125);
    const plain = headroomOf(signalPath(rate, { fir, gainDb: -6.0206 }));
    expect(plain.toneDb).toBeCloseTo(20 * Math.log10(0.875) - 6.0206, 3);
  });

  it('a full-scale tone through the chain rises by what it says', () => {
    const path = signalPath(rate, {
      fir: Float32Array.of(1, 0.4),
      filters: [peaking(500, 5, 2, rate)],
      gainDb: -3,
    });
    const { toneDb, atHz } = headroomOf(path);
    const tone = Float64Array.from({ length: 48000 }, (_, i) => Math.sin((2 * Math.PI * atHz * i) / rate));
    const out = throughFilters(tone, path);
    expect(20 * Math.log10(Math.max(...out.subarray(24000, 47000)))).toBeCloseTo(toneDb, 2);
  });
});

it('makes a filter of sections, of a FIR, and of both; both leaves least', () => {
  const noise = whiteNoise(grid.length, 4);
  let slow = 0;
  const gainDb = grid.map((_, i) => 12 * (slow += 0.1 * (noise[i]! - slow)));
  const make = (form: 'fir' | 'sections' | 'both') =>
    exactChannel(
      grid,
      {
        id: 'x',
        gainDb,
        span: { from: 20, to: 20000 },
        room: { boostDb: grid.map(() => 12), cutDb: grid.map(() => 15) },
      },
      { maxBoostDb: 12, maxCutDb: 15 },
      { ...STARTING_FILTER, form, sectionCount: 6 },
      PROCESSOR,
    );
  const [fir, sections, both] = [make('fir'), make('sections'), make('both')];
  expect(fir.sections).toEqual([]);
  expect(sections.fir).toBeNull();
  expect(both.sections.length).toBeGreaterThan(0);
  expect(both.fir).not.toBeNull();
  expect(sections.errorDb).toBeGreaterThan(0.2);
  expect(both.errorDb).toBeLessThan(sections.errorDb / 2);
  // the level told is that of both together
  const size = 131072;
  const spectrum = multiplyTraces(
    realFft(both.fir!, size),
    biquadSpectrum(
      both.sections.map((s) => peakOrShelf(s)),
      size,
    ),
  );
  const power = powerOf(spectrum);
  for (const f of [60, 500, 5000]) {
    const k = Math.round((f * size) / rate);
    expect(10 * Math.log10(power[k]!)).toBeCloseTo(both.levelDb[at(f)]!, 0);
  }
});
const peakOrShelf = ({ kind, frequency, gainDb, q }: Section) =>
  (kind === 'peak' ? peaking : kind === 'low shelf' ? lowShelf : highShelf)(frequency, gainDb, q, rate);
