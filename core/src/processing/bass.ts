import { crossoverBiquads } from '../alignment/index.js';
import {
  biquadSpectrum,
  fftSizeFor,
  gainOfDb,
  inverseRealFft,
  multiplySpectra,
  realFft,
  type HalfSpectrum,
  type ImpulseResponse,
} from '../signal/index.js';
import type { BassFeed, OutputSettings } from './settings.js';

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

/** Response of a feed on the bins of `size`. */
export function feedSpectrum({ gainDb, lowPass }: BassFeed, size: number, rate: number): HalfSpectrum {
  const spectrum = biquadSpectrum(crossoverBiquads('lowpass', lowPass, rate), size);
  const gain = gainOfDb(gainDb);
  return { size, re: spectrum.re.map((v) => gain * v), im: spectrum.im.map((v) => gain * v) };
}

/** Room for what a low-pass adds behind the end. */
const TAIL_S = 0.1;

/** An output's response as an input hears it that is fed there. */
export function throughFeed({ samples, rate, zero }: ImpulseResponse, feed: BassFeed): ImpulseResponse {
  const length = samples.length + Math.ceil(TAIL_S * rate);
  const size = fftSizeFor(length);
  const fed = multiplySpectra(realFft(samples, size), feedSpectrum(feed, size, rate));
  return { samples: inverseRealFft(fed).slice(0, length), rate, zero };
}
