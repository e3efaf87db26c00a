import {
  dbOfGain,
  exponentialSweep,
  fftSizeFor,
  type ImpulseResponse,
  type SweepRequest,
} from '../signal/index.js';
import { STORED_SAMPLES } from './analyseSweep.js';
import { deconvolve, impulseFrom, loopbackTime } from './deconvolve.js';
import { cutImpulse } from './timeWindow.js';

/** An output straight to an input; null when nothing came back. */
export type RoundTripFound = { latencyS: number; impulse: ImpulseResponse; gainDb: number } | null;

/** Below this a cable is not patched, or to another input. */
const LEAST_GAIN = 0.003;
/** The band's lower end rings long ahead of the arrival, too. */
const AHEAD_S = 0.5;

/** Latency, gain and response of an interface from a sweep played straight to an input, `silenceS` after the start. */
export function measureRoundTrip(
  recording: Float32Array,
  silenceS: number,
  request: SweepRequest,
): RoundTripFound {
  const sweep = exponentialSweep(request);
  const spectrum = deconvolve(recording, sweep, fftSizeFor(recording.length));
  const { samples, peak } = loopbackTime(spectrum, sweep, recording.length - sweep.samples.length);
  const latencyS = samples / sweep.rate - silenceS;
  if (Math.abs(peak) < LEAST_GAIN || latencyS < 0) return null;
  const before = Math.round(AHEAD_S * sweep.rate);
  const impulse = cutImpulse(impulseFrom(spectrum, samples), sweep.rate, before, STORED_SAMPLES - before);
  return { latencyS, impulse, gainDb: dbOfGain(peak) };
}
