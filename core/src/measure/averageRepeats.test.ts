import { expect, it } from 'vitest';
import { whiteNoise } from '../signal/index.js';
import { analyseSweep, averageRepeats, type AnalysedSweep } from './index.js';
import { randomSystem, recordThrough } from './testSignals.js';

const system = randomSystem(2000, 300, 4).map((v) => 0.2 * v);
const recorded = recordThrough(system);
const take = (seed: number, gain = 1, noiseRms = 0.0006): AnalysedSweep => {
  const noise = whiteNoise(recorded.length, seed);
  const microphone = recorded.microphone.map((v, i) => gain * v + noiseRms * noise[i]!);
  return analyseSweep({ ...recorded, microphone }, recorded.sweep);
};
const clean = take(9, 1, 0).impulse.samples;
const errorOf = ({ impulse: { samples, zero } }: AnalysedSweep) =>
  system.reduce((sum, _, i) => sum + (samples[zero + i]! - clean[zero + i]!) ** 2, 0);

it('lowers the noise of four takes by 6 dB', () => {
  const takes = [1, 2, 3, 4].map((seed) => take(seed));
  const { sweep, repeats } = averageRepeats(takes);
  expect(repeats).toBe(4);
  const single = takes.reduce((sum, t) => sum + errorOf(t), 0) / 4;
  expect(10 * Math.log10(single / errorOf(sweep))).toBeCloseTo(6, 0);
});

it('never averages noise alone, nor a take that is worse than the others', () => {
  const good = take(1);
  const silent = take(2, 0);
  expect(silent.verdict.state).toBe('failed');
  expect(averageRepeats([good, silent])).toEqual({ sweep: good, repeats: 1 });
  expect(averageRepeats([silent, take(3, 0)]).repeats).toBe(1);
  const doubtful = { ...take(5), verdict: { ...good.verdict, state: 'doubtful' as const } };
  expect(averageRepeats([doubtful, good, take(6)]).repeats).toBe(2);
  expect(() => averageRepeats([])).toThrow(/one take/);
});

it('leaves out a take that was heard at another time', () => {
  const good = take(1);
  const later = take(2);
  later.arrival = { ...later.arrival!, peakS: later.arrival!.peakS + 0.0003 };
  expect(averageRepeats([good, later]).repeats).toBe(1);
});
