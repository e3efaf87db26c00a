import { needAbove } from '../limits/index.js';
import { fftSizeFor, inverseRealFft, multiplyTraces, realFft } from '../signal/index.js';
import { asSet, RINGS_S, type SourceSetting } from './sourceSetting.js';

/**
 * A signal as a source plays it when it is set: louder, later, inverted, behind its all-passes and crossovers.
 * @param samples any length @param rate Hz
 * @returns longer by the delay and what filters need to ring out
 * @throws RangeError for a delay below 0, which nobody can play
 */
export function playedAs(samples: Float32Array, rate: number, setting: SourceSetting): Float32Array {
  needAbove('playedAs', 'rate', rate, 0);
  if (!(setting.delayS >= 0))
    throw new RangeError(`playedAs: a delay of ${setting.delayS} s cannot be played`);
  const { allPasses, highPass, lowPass, delayS } = setting;
  const rings = allPasses.length > 0 || highPass !== null || lowPass !== null;
  const length = samples.length + Math.ceil((delayS + (rings ? RINGS_S : 0)) * rate);
  const size = fftSizeFor(length);
  const spectrum = realFft(samples, size, rate);
  const ones = { frequency: spectrum.frequency, re: spectrum.re.map(() => 1), im: spectrum.im.map(() => 0) };
  const played = inverseRealFft(multiplyTraces(spectrum, asSet(ones, setting)));
  return Float32Array.from(played.subarray(0, length));
}
