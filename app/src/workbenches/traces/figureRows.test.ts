import { FIGURE_OCTAVES, FIGURES, type OctaveFigures } from '@pebble-hall/core/acoustics';
import { expect, it } from 'vitest';
import { figureRows, figuresOverSpots, OCTAVE_NAMES, whyMissing } from './figureRows';

const found = (value: number) => ({ found: true as const, value });
const octave = (t20: number): OctaveFigures => ({
  ...(Object.fromEntries(FIGURES.map((f) => [f, found(0.5)])) as Omit<OctaveFigures, 'rangeDb'>),
  t20: found(t20),
  c80: found(-2.34),
  ts: found(0.085),
  rangeDb: 50,
});
const spot = (t20: number) => FIGURE_OCTAVES.map(() => octave(t20));

it('names the octaves of the standard', () => {
  OCTAVE_NAMES.forEach((name, i) => {
    const nominal = parseFloat(name) * (name.endsWith('kHz') ? 1000 : 1);
    expect(Math.abs(FIGURE_OCTAVES[i]!.centre / nominal - 1)).toBeLessThan(0.01);
  });
  expect(OCTAVE_NAMES).toHaveLength(FIGURE_OCTAVES.length);
});

it('writes mean and spread in the units of each figure', () => {
  const { rows } = figureRows(figuresOverSpots([spot(0.4), spot(0.6)]));
  const row = (name: string) => rows.find((r) => r[0] === name)![1];
  expect(row('T20, s')).toBe('0.50 ± 0.10');
  expect(row('C80, dB')).toBe('\u22122.3 ± 0.0');
  expect(row('D50, %')).toBe('50 ± 0');
  expect(row('Ts, ms')).toBe('85 ± 0');
});

it('says why a figure is missing, by the one that lacks least', () => {
  const lacking = spot(0.4);
  lacking[0] = { ...lacking[0]!, t30: { found: false, rangeDb: 41.2, needsDb: 45 } };
  const table = figuresOverSpots([lacking]);
  expect(figureRows(table).rows.find((r) => r[0] === 'T30, s')![1]).toBe('–');
  expect(whyMissing(table)).toContain('T30 at 63 Hz needs 45 dB and has 41 dB');
  expect(whyMissing(figuresOverSpots([spot(0.4)]))).toBeNull();
});
