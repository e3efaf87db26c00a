import { newReading, nothingPublished } from '@pebble-hall/core/project';
import type { ShapeReading } from '@pebble-hall/core/shapes';
import { expect, it } from 'vitest';
import { readingData, readingSentence, withinText } from './readingTable';

const found: ShapeReading = {
  shapes: [
    {
      shape: { kind: 'peaking', hz: 1040, gainDb: 11.62, q: 0.94 },
      errors: { hz: 0.001, gainDb: 0.02, q: 0.004 },
      nextBest: null,
    },
  ],
  levelDb: 0.1,
  levelErrorDb: 0.01,
  leftDb: 0.034,
  leftDeg: 0.4,
  delayS: 0,
  points: 480,
};
const reading = {
  ...newReading('r', 'Middle full up', 't'),
  published: [{ ...nothingPublished(), hz: 1000, gainDb: 15 }],
};

it('published beside found, with the difference, how sure it is, and a verdict', () => {
  const { columns, rows } = readingData(reading, found);
  expect(columns).toHaveLength(8);
  expect(rows[0]).toEqual([
    'Peaking section',
    'frequency',
    '1 kHz',
    '1.04 kHz',
    '± 2.1 Hz',
    '+4.0 %',
    '± 10 %',
    'inside',
  ]);
  expect(rows[1]).toEqual([
    'Peaking section',
    'gain',
    '+15.00 dB',
    '+11.62 dB',
    '± 0.040 dB',
    '\u22123.38 dB',
    '± 1 dB',
    'outside',
  ]);
  expect(rows.map((r) => r[1])).toEqual(['frequency', 'gain', 'q', 'bandwidth']);
});

it('is told in a sentence, whether something is published or not', () => {
  expect(readingSentence(reading, found)).toMatch(/0\.03 dB.*of 2 published figures 1 inside, 1 outside/);
  expect(readingSentence({ ...reading, published: [nothingPublished()] }, found)).toMatch(
    /Type what is published/,
  );
});

it('a figure whose error is not known says so', () => {
  expect(
    withinText({ figure: 'q', published: null, found: 1, within: null, difference: null, verdict: null }),
  ).toBe('not known');
});
