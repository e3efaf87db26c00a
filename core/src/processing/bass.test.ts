import { describe, expect, it } from 'vitest';
import { dbOfGain, realFft } from '../signal/index.js';
import { sumPathsInTime } from '../path/index.js';
import { drivesOf, feedPath, outputSource, plainOutput, settingChanges } from './index.js';

const rate = 48000;
const lowPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };

describe('what an input drives', () => {
  const outputs = [
    { ...plainOutput(), bassFeed: { gainDb: 0, lowPass } },
    plainOutput(),
    { ...plainOutput(), playsBass: true },
    { ...plainOutput(), playsBass: true, bassFeed: { gainDb: 3, lowPass: null } },
  ];
  it('is its own output, and what plays bass where it is fed on', () => {
    expect(drivesOf(outputs, 1)).toEqual([
      { output: 1, feed: null },
      { output: 3, feed: outputs[0]!.bassFeed },
      { output: 4, feed: outputs[0]!.bassFeed },
    ]);
    expect(drivesOf(outputs, 2)).toEqual([{ output: 2, feed: null }]);
  });
  it('never is the same output twice', () => {
    expect(drivesOf(outputs, 4).map((d) => d.output)).toEqual([4, 3]);
  });
  it('is at least its own output where there are no settings', () => {
    expect(drivesOf([], 8)).toEqual([{ output: 8, feed: null }]);
  });
});

it('a feed lowers by 6 dB where a Linkwitz-Riley low-pass has its corner, by 24 dB an octave above, and gains its gain', () => {
  const samples = new Float64Array(32768);
  samples[100] = 1;
  const response = { samples, rate, zero: 100 };
  const fed = sumPathsInTime([{ response, path: feedPath({ gainDb: 10, lowPass }, rate) }]);
  expect(fed.zero).toBe(100);
  const size = 65536;
  const { re, im } = realFft(fed.samples, size);
  // |H|^2 of a fourth-order Linkwitz-Riley: 1 / (1 + (f/fc)^4)^2
  for (const k of [27, 109, 218, 437]) {
    const f = (k * rate) / size;
    const level = dbOfGain(Math.hypot(re[k]!, im[k]!));
    expect(level).toBeCloseTo(10 - 20 * Math.log10(1 + (f / 80) ** 4), 1);
  }
});

it('an output that is fed plays what the feed leaves, through its own settings', () => {
  const samples = new Float64Array(32768);
  samples[100] = 1;
  const impulse = { samples, rate, zero: 100 };
  const after = { ...plainOutput(), trimDb: -4, inverted: true };
  const played = { impulse, before: plainOutput(), after, fir: null };
  const [own, fed] = [null, { gainDb: 10, lowPass: null }].map((feed) =>
    sumPathsInTime([outputSource({ ...played, feed })]),
  );
  expect(own!.samples[100]).toBeCloseTo(-(10 ** (-4 / 20)), 9);
  expect(fed!.samples[100]).toBeCloseTo(-(10 ** (6 / 20)), 9);
});

it('a lost feed is told in words', () => {
  const wanted = [{ ...plainOutput(), bassFeed: { gainDb: 10, lowPass }, playsBass: true }];
  expect(settingChanges(wanted, [plainOutput()])).toEqual([
    {
      output: 1,
      what: 'bass sent',
      wanted: '+10.0 dB, low-pass Linkwitz-Riley 24 dB/octave at 80 Hz',
      found: 'none',
    },
    { output: 1, what: 'bass played', wanted: 'of all channels', found: 'its own' },
  ]);
});
