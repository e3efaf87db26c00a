import { expect, it } from 'vitest';
import { csvOf, tsvOf } from './tableText';

const table = {
  title: 'T',
  columns: ['Channel', 'Level, dB'],
  rows: [
    ['Left "A"', '\u22123.1'],
    ['Right\tB', '0'],
  ],
};

it('copies as tab-separated text with plain minus signs', () => {
  expect(tsvOf(table)).toBe('Channel\tLevel, dB\nLeft "A"\t-3.1\nRight B\t0');
});

it('saves as CSV, quoted where it must be', () => {
  expect(csvOf(table)).toBe('Channel,"Level, dB"\r\n"Left ""A""",-3.1\r\nRight\tB,0\r\n');
});
