import { describe, expect, it } from 'vitest';
import { butterworth, gainOfDb, peaking } from '../signal/index.js';
import { headroomOf, signalPath, throughFilters } from './index.js';

const rate = 48000;
/** Peak in dB of a square at full scale once it has lasted for a second, sample by sample. */
function squareThrough(path: ReturnType<typeof signalPath>, half: number): number {
  const square = Float64Array.from({ length: 96000 }, (_, i) => (i % (2 * half) < half ? 1 : -1));
  const out = throughFilters(square, path).subarray(48000, 96000);
  return 20 * Math.log10(out.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
}

describe('headroom', () => {
  it('of a plain path is nothing, and of a gain that gain, for every signal', () => {
    for (const gainDb of [0, -4.5]) {
      const h = headroomOf(signalPath(rate, { gainDb }));
      for (const db of [h.toneDb, h.programmeDb, h.fullScaleDb]) expect(db).toBeCloseTo(gainDb, 6);
    }
  });

  it('finds the square that peaks most: as playing them all shows', () => {
    const path = signalPath(rate, { filters: butterworth('highpass', 2, 80, rate) });
    const { fullScaleDb, fullScaleOf, toneDb } = headroomOf(path);
    const played = [1200, 900, 600, 400, 300, 200, 100, 50].map((half) => squareThrough(path, half));
    expect(toneDb).toBeLessThan(0.01);
    expect(fullScaleOf.kind).toBe('square');
    expect(fullScaleDb).toBeGreaterThanOrEqual(Math.max(...played) - 0.01);
    expect(squareThrough(path, Math.round(rate / fullScaleOf.atHz / 2))).toBeCloseTo(fullScaleDb, 2);
  });

  it('of an all-pass of two taps is what a square adds up to: 1 + 0.5', () => {
    const { fullScaleDb } = headroomOf(signalPath(rate, { fir: Float32Array.of(1, -0.5) }));
    expect(fullScaleDb).toBeCloseTo(20 * Math.log10(1.5), 3);
  });

  it('a narrow boost lifts programme by less than a tone, a wide one by as much', () => {
    const narrow = headroomOf(signalPath(rate, { filters: [peaking(1000, 9, 12, rate)] }));
    expect(narrow.programmeDb).toBeLessThan(narrow.toneDb - 2);
    const wide = headroomOf(signalPath(rate, { filters: [peaking(700, 9, 0.1, rate)] }));
    expect(Math.abs(wide.programmeDb - wide.toneDb)).toBeLessThan(2);
  });

  it('takes no account of a delay', () => {
    const filters = [peaking(90, 6, 1, rate)];
    const [now, later] = [0, 0.4].map((delayS) => headroomOf(signalPath(rate, { filters, delayS })));
    expect(later!.programmeDb).toBeCloseTo(now!.programmeDb, 6);
    expect(later!.fullScaleDb).toBeCloseTo(now!.fullScaleDb, 6);
    expect(gainOfDb(now!.toneDb)).toBeCloseTo(gainOfDb(6), 3);
  });
});
