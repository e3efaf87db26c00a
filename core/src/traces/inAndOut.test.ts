import { describe, expect, it } from 'vitest';
import { readNumberTable } from '../formats/index.js';
import { biquadTrace, filterBiquads, peaking } from '../signal/index.js';
import {
  curveOfImpulse,
  curveOfTable,
  likelyMeanings,
  LIBRARY_GRID,
  writeCurveText,
  type LibraryCurve,
} from './index.js';

const db = ({ re, im }: LibraryCurve, n: number) => 20 * Math.log10(Math.hypot(re[n]!, im[n]!));
const deg = ({ re, im }: LibraryCurve, n: number) => (Math.atan2(im[n]!, re[n]!) * 180) / Math.PI;
const read = (text: string) => {
  const table = readNumberTable(text);
  return { table, meanings: likelyMeanings(table), curve: () => curveOfTable(table, likelyMeanings(table)) };
};
const rows = (of: (f: number) => (number | string)[], join: string, comma = false) =>
  [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000]
    .map((f) => {
      const line = of(f).join(join);
      return comma ? line.replace(/\./g, ',') : line;
    })
    .join('\n');

describe('tables of any separator, decimal sign and order', () => {
  it.each<[string, string, string[]]>([
    [
      'tabs',
      `Freq[Hz]\tSPL[dB]\tPhase[deg]\n${rows((f) => [f, -3, 10], '\t')}`,
      ['frequency in Hz', 'level in dB', 'phase in degrees'],
    ],
    [
      'semicolons and decimal commas',
      `${rows((f) => [f.toFixed(1), -3.5, 0.25], ';', true)}`,
      ['frequency in Hz', 'level in dB', 'coherence, 0 to 1'],
    ],
    [
      'commas',
      `Coherence,Magnitude (dB),Frequency (Hz)\n${rows((f) => [0.9, -3, f], ',')}`,
      ['coherence, 0 to 1', 'level in dB', 'frequency in Hz'],
    ],
    [
      'spaces, no heading',
      `# made somewhere\n${rows((f) => [f, -3, 95.5], '   ')}`,
      ['frequency in Hz', 'level in dB', 'phase in degrees'],
    ],
    ['kHz', `f (kHz);|H|\n${rows((f) => [f / 1000, 0.7], ';')}`, ['frequency in kHz', 'magnitude']],
    [
      'real and imaginary',
      `freq real imag\n${rows((f) => [f, 0.5, -0.5], ' ')}`,
      ['frequency in Hz', 'real part', 'imaginary part'],
    ],
  ])('%s', (_, text, meanings) => {
    const { meanings: found, curve } = read(text);
    expect(found).toEqual(meanings);
    const { frequency } = curve();
    expect(frequency[0]).toBeGreaterThanOrEqual(19.9);
    expect(frequency).toHaveLength(LIBRARY_GRID.length);
  });

  it('levels and phases are those of the file, between its points over log frequency', () => {
    const late = (f: number) => -0.36 * f; // 1 ms late
    const text = Array.from({ length: 400 }, (_, i) => 20 * 1000 ** (i / 399))
      .map(
        (f) =>
          `${f.toFixed(3)}\t${(-6 * Math.log10(f / 1000)).toFixed(4)}\t${((((late(f) + 180) % 360) + 360) % 360) - 180}`,
      )
      .join('\n');
    const curve = read(text).curve();
    expect(curve.hasPhase).toBe(true);
    curve.frequency.forEach((f, n) => {
      expect(db(curve, n)).toBeCloseTo(-6 * Math.log10(f / 1000), 2);
      if (f > 2000) return; // above, the points of the file lie further apart than half a turn allows
      const off = deg(curve, n) - late(f);
      expect(Math.abs(off - 360 * Math.round(off / 360))).toBeLessThan(1.5);
    });
  });

  it('a bin at 0 Hz is left out; what descends is turned round', () => {
    const curve = read('0 -90\n30 -3\n60 -3\n120 -3').curve();
    expect(curve.frequency[0]).toBeGreaterThanOrEqual(30 * 0.9999);
    const turned = curveOfTable({ columns: [Float64Array.of(400, 200, 100), Float64Array.of(1, 2, 3)] }, [
      'frequency in Hz',
      'level in dB',
    ]);
    expect(db(turned, 0)).toBeCloseTo(3, 1);
  });

  it('what cannot be is refused with what to do', () => {
    expect(() => readNumberTable('hello\nworld')).toThrow(/No rows/);
    expect(() => readNumberTable('\u0000\u0001')).toThrow(/not a text file/);
    const two = { columns: [Float64Array.of(100, 200), Float64Array.of(1, 2)] };
    expect(() => curveOfTable(two, ['nothing', 'level in dB'])).toThrow(/hold the frequency/);
    expect(() => curveOfTable(two, ['frequency in Hz', 'nothing'])).toThrow(/hold the level/);
    expect(() => curveOfTable(two, ['frequency in Hz', 'frequency in kHz'])).toThrow(/Two columns/);
    expect(() =>
      curveOfTable({ columns: [Float64Array.of(1, 2), Float64Array.of(1, 2)] }, [
        'frequency in Hz',
        'level in dB',
      ]),
    ).toThrow(/nothing between/);
    expect(() =>
      curveOfTable({ columns: [Float64Array.of(100, 200), Float64Array.of(1, 4000)] }, [
        'frequency in Hz',
        'level in dB',
      ]),
    ).toThrow(/400 dB/);
  });
});

describe('written as text', () => {
  it('comes back as it was, with everything known in its head', () => {
    const curve: LibraryCurve = {
      frequency: LIBRARY_GRID,
      re: LIBRARY_GRID.map((f) => (f < 25 ? NaN : Math.cos(f / 100))),
      im: LIBRARY_GRID.map((f) => (f < 25 ? NaN : Math.sin(f / 100))),
      coherence: LIBRARY_GRID.map((f) => (f < 100 ? 0.25 : 0.75)),
      hasPhase: true,
    };
    const text = writeCurveText(curve, ['Row 4, memory B', 'two\nlines']);
    expect(text.split('\n').slice(0, 2)).toEqual(['# Row 4, memory B', '# two lines']);
    const { table, meanings } = read(text);
    expect(meanings).toEqual(['frequency in Hz', 'level in dB', 'phase in degrees', 'coherence, 0 to 1']);
    const back = curveOfTable(table, meanings);
    const first = LIBRARY_GRID.findIndex((f) => f >= 25);
    expect(back.frequency).toHaveLength(LIBRARY_GRID.length - first);
    back.frequency.forEach((_, n) => {
      expect(back.re[n]).toBeCloseTo(curve.re[first + n]!, 3);
      expect(back.coherence[n]).toBeCloseTo(curve.coherence[first + n]!, 3);
    });
  });
});

describe('an impulse response as a curve', () => {
  it('is the response of the filter that it is, time zero where it has it, less what the microphone reads', () => {
    const RATE = 48_000;
    const filter = [peaking(500, 6, 1, RATE)];
    const pulse = new Float64Array(16_384);
    pulse[300] = 1;
    const samples = filterBiquads(pulse, filter);
    const curve = curveOfImpulse({ samples, rate: RATE, zero: 300 });
    const want = biquadTrace(filter, curve.frequency, RATE);
    curve.frequency.forEach((_, n) => {
      expect(curve.re[n]).toBeCloseTo(want.re[n]!, 2);
      expect(curve.im[n]).toBeCloseTo(want.im[n]!, 2);
    });
    const corrected = curveOfImpulse(
      { samples, rate: RATE, zero: 300 },
      { frequency: [20, 20_000], levelDb: [2, 2] },
    );
    expect(db(corrected, 100)).toBeCloseTo(db(curve, 100) - 2, 9);
  });
});
