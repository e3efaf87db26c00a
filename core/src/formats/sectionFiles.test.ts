import { describe, expect, it } from 'vitest';
import { filterBiquads } from '../signal/index.js';
import { readTargetText, sectionsCsv, sectionsJson, sectionsText, writeTargetText } from './index.js';

const outputs = [
  {
    name: 'Left, "new"',
    sections: [
      { kind: 'peak' as const, frequency: 1000, gainDb: -4.5, q: 2 },
      { kind: 'high shelf' as const, frequency: 8000, gainDb: 2, q: 0.71 },
    ],
  },
  { name: 'Sub 1', sections: [] },
];

describe('sections as files', () => {
  it('text names kind, frequency, gain and Q of each', () => {
    const text = sectionsText(outputs);
    expect(text).toMatch(/peak\s+1000 Hz\s+-4\.5 dB {2}Q 2\.00/);
    expect(text).toMatch(/Sub 1\n {2}no sections/);
  });

  it('CSV and JSON give coefficients in both conventions, and both run to the same sound', () => {
    const [heading, first] = sectionsCsv(outputs, 48000, 48000).split('\n');
    const names = heading!.split(',');
    // the name holds a comma: the cells behind it are counted from the end
    const cells = first!.split(',').slice(-names.length + 1);
    const cell = (name: string) => Number(cells[names.indexOf(name) - 1]);
    expect(cell('a1 (added)')).toBe(-cell('a1 (subtracted)'));
    const json = JSON.parse(sectionsJson(outputs, 48000, 48000)) as {
      conventions: Record<string, string>;
      outputs: {
        sections: {
          biquad: Record<
            'subtracted' | 'added',
            { b0: number; b1: number; b2: number; a1: number; a2: number }
          >;
        }[];
      }[];
    };
    expect(json.conventions['added']).toContain('+ a1 y[n-1]');
    const { subtracted, added } = json.outputs[0]!.sections[0]!.biquad;
    expect(subtracted.b0).toBe(cell('b0'));
    const impulse = new Float64Array(64);
    impulse[0] = 1;
    const want = filterBiquads(impulse, [subtracted]);
    const y = new Float64Array(64);
    for (let n = 0; n < 64; n++) {
      const x = (k: number) => impulse[n - k] ?? 0;
      y[n] =
        added.b0 * x(0) +
        added.b1 * x(1) +
        added.b2 * x(2) +
        added.a1 * (y[n - 1] ?? 0) +
        added.a2 * (y[n - 2] ?? 0);
    }
    y.forEach((v, i) => expect(v).toBeCloseTo(want[i]!, 12));
  });

  it('at another rate say how far each section deviates from what it is at its own', () => {
    const rows = sectionsCsv(outputs, 48000, 96000).trim().split('\n').slice(1);
    for (const row of rows) expect(Number(row.split(',').at(-1))).toBeLessThan(0.1);
    const json = JSON.parse(sectionsJson(outputs, 48000, 96000)) as { madeForRateHz: number };
    expect(json.madeForRateHz).toBe(48000);
  });
});

describe('targets as text', () => {
  const target = {
    handles: [
      { frequency: 40, levelDb: 4 },
      { frequency: 1000, levelDb: 0 },
    ],
    lowLiftDb: 2,
    highTiltDb: -0.5,
    keepsRollOff: true,
    lowExtensionHz: null,
    highExtensionHz: null,
  };
  it('read back as written', () => {
    expect(readTargetText(writeTargetText('Evening', target))).toEqual({ name: 'Evening', target });
    const alone = { ...target, keepsRollOff: false };
    expect(readTargetText(writeTargetText('Evening', alone)).target).toEqual(alone);
    expect(readTargetText('20 1\n1000 0\n10000 -4').target.keepsRollOff).toBe(false);
  });
  it('thin a long curve to handles a third of an octave apart', () => {
    const rows = Array.from(
      { length: 500 },
      (_, i) => `${(20 * 1.013 ** i).toFixed(2)} ${(i / 100).toFixed(2)}`,
    ).join('\n');
    const { handles } = readTargetText(rows).target;
    expect(handles.length).toBeGreaterThan(20);
    expect(handles.length).toBeLessThan(40);
  });
  it('are refused with the reason when they make no sense', () => {
    expect(() => readTargetText('1000\t900')).toThrow(/900 dB at 1000 Hz is out of range/);
    expect(() => readTargetText('hello')).toThrow(/No rows/);
    expect(() => readTargetText('1 0')).toThrow(/between 5 Hz/);
  });
});
