import { expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { impulseTogether, laterBy } from './index.js';

const plain = { gainDb: 0, delayS: 0, inverted: false, allPasses: [], highPass: null, lowPass: null };
const rate = 48_000;
const random = seededRandom(5);
/** Noise that dies away, with its time zero somewhere before it. */
const room = (length: number, zero: number) => ({
  samples: Float32Array.from({ length }, (_, i) => random.normal() * Math.exp(-i / 400)),
  rate,
  zero,
});

it('adds up sample by sample: later by whole samples, louder, inverted, each from its own time zero', () => {
  const [one, other] = [room(2000, 100), room(1500, 40)];
  const sum = impulseTogether([
    { impulse: one, as: plain },
    { impulse: other, as: { ...plain, gainDb: 6, delayS: 480 / rate, inverted: true } },
  ]);
  expect(sum.zero).toBe(100);
  const gain = -(10 ** (6 / 20));
  // the other one's time zero lies at 100 too, and then 480 later
  for (let i = 0; i < sum.samples.length; i++) {
    const wanted = (one.samples[i] ?? 0) + gain * (other.samples[i - 60 - 480] ?? 0);
    expect(Math.abs(sum.samples[i]! - wanted)).toBeLessThan(1e-4);
  }
});

it('refuses nothing, unlike rates, and what cannot be played', () => {
  const impulse = room(100, 0);
  expect(() => impulseTogether([])).toThrow(RangeError);
  expect(() =>
    impulseTogether([
      { impulse, as: plain },
      { impulse: { ...impulse, rate: 44_100 }, as: plain },
    ]),
  ).toThrow(/44100/);
  expect(() => impulseTogether([{ impulse, as: { ...plain, delayS: -0.001 } }])).toThrow(/cannot be played/);
  expect(() => impulseTogether([{ impulse, as: { ...plain, delayS: NaN } }])).toThrow(/NaN/);
});

it('the same sound once more, with another time zero and later, is found by as much', () => {
  const one = room(3000, 100);
  const shift = 240;
  const other = {
    samples: Float32Array.from({ length: 4000 }, (_, i) => 0.7 * (one.samples[i - shift] ?? 0)),
    rate,
    zero: 90,
  };
  // later by 240 samples, and its time zero 10 earlier
  expect(laterBy(one, other)).toBeCloseTo((shift + 10) / rate, 12);
  expect(laterBy(other, one)).toBeCloseTo(-(shift + 10) / rate, 12);
  expect(() => laterBy(one, { ...one, rate: 96_000 })).toThrow(/96000/);
});
