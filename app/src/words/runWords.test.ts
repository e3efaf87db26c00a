import type { ReceiverReading } from '@pebble-hall/core/runs';
import type { EnergyFigures } from '@pebble-hall/core/tracing';
import { describe, expect, it } from 'vitest';
import {
  changedWords,
  errorInNoticeable,
  figureOf,
  figureText,
  justNoticed,
  leastSure,
  leftWords,
  speechWord,
  spreadOf,
  trustRunSentence,
} from './runWords';

const figures = (of: number): EnergyFigures => ({
  edt: of,
  t20: of,
  t30: of,
  c50: of,
  c80: of,
  d50: of,
  ts: of,
  g: of,
  lf: of,
});
/** Octave o has the value o + 1, errors as given. */
const reading = (error: number, stiError = 0.001): ReceiverReading => ({
  figures: Array.from({ length: 8 }, (_, o) => figures(o + 1)),
  errors: Array.from({ length: 8 }, () => figures(error)),
  sti: 0.5,
  stiError,
  levelDb: Array.from({ length: 8 }, (_, o) => 60 + o),
  evenness: null,
});

it('the mean of a figure is that of the octaves which stand for all', () => {
  expect(figureOf(reading(0), 't30', 'mean')).toBe(4.5);
  expect(figureOf(reading(0), 'lf', 'mean')).toBe(3.5);
  expect(figureOf(reading(0), 'c80', 7)).toBe(8);
  expect(figureOf(reading(0), 'level', 'mean')).toBe(63.5);
  expect(figureOf(reading(0), 'sti', 3)).toBe(0.5);
});

it('errors are told in what one would notice: of times 5 % of them', () => {
  expect(errorInNoticeable(reading(0.1), 't30', 1)).toBeCloseTo(0.1 / (0.05 * 2), 12);
  expect(errorInNoticeable(reading(0.1), 'c80', 1)).toBeCloseTo(0.1, 12);
  expect(errorInNoticeable(reading(0, 0.06), 'sti', 'mean')).toBeCloseTo(2, 12);
});

it('what is just noticed of a figure, in its own unit', () => {
  expect(justNoticed('sti', [0.5, 0.7])).toBeCloseTo(0.03, 9);
  expect(justNoticed('t30', [1, 3, NaN])).toBeCloseTo(0.1, 9);
  expect(justNoticed('c80', [-4, 2])).toBeCloseTo(1, 9);
  expect(justNoticed('level', [80])).toBe(1);
  expect(justNoticed('t30', [NaN])).toBe(0);
});

it('figures as text', () => {
  expect(figureText(-1.24, 'c80')).toBe('−1.2 dB');
  expect(figureText(1.234, 't30')).toBe('1.23 s');
  expect(figureText(NaN, 'g')).toBe('not known');
  expect([0.2, 0.4, 0.5, 0.7, 0.8].map(speechWord)).toEqual(['bad', 'poor', 'fair', 'good', 'excellent']);
});

it('where a figure is least and most', () => {
  expect(spreadOf([2, NaN, 5, 1])).toEqual({ least: 3, most: 2, mean: 8 / 3 });
  expect(spreadOf([NaN])).toBeNull();
});

describe('what can be trusted', () => {
  const times = (error: number) => Math.ceil(error ** 2);
  it('all, where chance is below what one notices', () => {
    expect(trustRunSentence([reading(0.001)], ['Seat 1'], times)).toEqual({
      text: 'Trust all of it: chance is below what one would notice.',
      attention: false,
    });
  });
  it('else what is sure, and where the least sure one lies', () => {
    const odd = reading(0.001, 0.05);
    expect(leastSure([reading(0.001), odd])).toMatchObject({ figure: 'sti', octave: null, receiver: 1 });
    const { text } = trustRunSentence([reading(0.001), odd], ['Seat 1', 'Seat 2'], times);
    expect(text).toMatch(/^Trust T30, T20, EDT, C80, D50, Ts, G, LF; STI, Seat 2, needs 3 times the rays/);
  });
  it('nothing, where nothing arrives', () => {
    expect(trustRunSentence([reading(NaN, NaN)], ['Seat 1'], times).attention).toBe(true);
  });
});

it('what changed since a run', () => {
  expect(changedWords({ surfaces: null, air: false })).toMatch(/another shape/);
  expect(changedWords({ surfaces: ['Rear wall'], air: true })).toBe(
    'Since this run Rear wall swallows or scatters otherwise, and the air is another one.',
  );
  expect(changedWords({ surfaces: ['a', 'b', 'c', 'd'], air: false })).toMatch(/4 surfaces swallow/);
});

it('time that is left', () => {
  expect([null, 0.2, 42.4, 300].map(leftWords)).toEqual(['', '1 s left', '42 s left', '5 min left']);
});
