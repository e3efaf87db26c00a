import { shapeTrace } from '@pebble-hall/core/shapes';
import {
  binFrequencies,
  gainOfDb,
  inverseRealFft,
  multiplyTraces,
  type ComplexTrace,
} from '@pebble-hall/core/signal';
import { tidepoolChannels, type Knobs, type MixerChannel } from '../mixer/index.js';
import type { SessionFeed } from './simulatedSession.js';

/** A mixer on the bench: one output of the interface goes to all of its channels, its left and right come back on two inputs. */
export interface BenchDevice {
  output: number;
  /** left, and right where it is plugged */
  inputs: readonly number[];
  knobs: Knobs;
}

/** An input stage bends a little, evenly and unevenly, and ends softly here, full scale = 1. */
const SECOND = 2e-4;
const THIRD = -8e-4;
const CEILING = 0.9;
/** Of the sum, and of an input stage at no gain, dB re full scale RMS. */
const SUM_NOISE_DB = -92;
const STAGE_NOISE_DB = -104;

/**
 * What a session plays through the mixer, one feed for each channel whether it is up or not.
 * @param interfaceTrace of the interface's own response at the bins of `size`
 */
export function mixerFeeds(
  { output, inputs, knobs }: BenchDevice,
  interfaceTrace: ComplexTrace,
  size: number,
  rate: number,
): SessionFeed[] {
  const frequency = binFrequencies(size, rate);
  return tidepoolChannels(knobs).map((channel) => {
    const isUp = channel.left > 0 || channel.right > 0;
    const impulse = isUp
      ? inverseRealFft(multiplyTraces(shapeTrace(channel.shapes, frequency), interfaceTrace))
      : new Float64Array(1);
    return {
      output,
      gain: channel.gain,
      second: SECOND,
      third: THIRD,
      torn: 0,
      ceiling: CEILING,
      drive: Float32Array.of(1),
      ways: inputs.map((input, side) => {
        const share = side === 0 ? channel.left : channel.right;
        return { input, impulse: Float32Array.from(impulse, (v) => share * v) };
      }),
    };
  });
}

/** RMS of the noise of its own at each input, full scale = 1. */
export function mixerHiss({ inputs, knobs }: BenchDevice): { input: number; level: number }[] {
  const channels = tidepoolChannels(knobs);
  return inputs.map((input, side) => {
    const own = (c: MixerChannel) => gainOfDb(STAGE_NOISE_DB) * c.gain * (side === 0 ? c.left : c.right);
    const power = channels.reduce((sum, c) => sum + own(c) ** 2, gainOfDb(SUM_NOISE_DB) ** 2);
    return { input, level: Math.sqrt(power) };
  });
}
