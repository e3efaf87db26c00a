import { crossoverBiquads, inSeries, signalPath, type PathSource, type SignalPath } from '../path/index.js';
import type { ImpulseResponse } from '../signal/index.js';
import { outputPath, type BassFeed, type OutputSettings } from './settings.js';

/** An output (from 1) that an input drives; `feed` is what is in between, null where the input is its own. */
export interface Drive {
  output: number;
  feed: BassFeed | null;
}

/** What a signal at an input (from 1) drives: the output of its number, and by its bass feed every other one that plays bass. */
export function drivesOf(outputs: OutputSettings[], input: number): Drive[] {
  const feed = outputs[input - 1]?.bassFeed ?? null;
  const bass = outputs.flatMap((o, i) => (feed && o.playsBass && i + 1 !== input ? [i + 1] : []));
  return [{ output: input, feed: null }, ...bass.map((output) => ({ output, feed }))];
}

/** What a feed does on the way from an input to an output that plays bass. */
export const feedPath = ({ gainDb, lowPass }: BassFeed, rate: number): SignalPath =>
  signalPath(rate, { gainDb, filters: crossoverBiquads('lowpass', lowPass, rate) });

/** One loudspeaker that plays a sound: as it was measured, how its output is set now, and what it is fed through. */
export interface PlayedOutput {
  impulse: ImpulseResponse;
  /** what the output did while it was measured, without a FIR */
  before: OutputSettings;
  after: OutputSettings;
  fir: Float32Array | null;
  feed: BassFeed | null;
}

/** An output as a source that can be summed with others; everything at the rate of what was measured. */
export function outputSource({
  impulse,
  before,
  after,
  fir,
  feed,
}: PlayedOutput): PathSource<ImpulseResponse> {
  const { rate } = impulse;
  const own = outputPath(after, fir, rate);
  return {
    response: impulse,
    path: feed ? inSeries(feedPath(feed, rate), own) : own,
    measuredThrough: outputPath(before, null, rate),
  };
}
