import {
  delayTrace,
  fftSizeFor,
  harmonicLead,
  inverseRealFft,
  powerOf,
  realFft,
  type ImpulseResponse,
  type RealArray,
  type Sweep,
} from '../signal/index.js';
import { findArrival, type Arrival } from './arrival.js';
import { findClipping } from './clipping.js';
import { deconvolve, findLoopback } from './deconvolve.js';
import { divideOut } from './divideOut.js';
import { findDisturbances } from './disturbance.js';
import { splitHarmonics, type HarmonicResponse } from './harmonics.js';
import { harmonicCurves, type HarmonicCurves } from './harmonicCurves.js';
import { findPolarity, type Polarity } from './polarity.js';
import { referenceResponse } from './referenceClick.js';
import { signalToNoise, type BandMargin } from './signalToNoise.js';
import { cutImpulse } from './timeWindow.js';
import { trimNoise, type DecayEnd } from './trimNoise.js';
import { judgeSweep, ownMargin, SILENT_DB, type Verdict } from './verdict.js';

/** One sweep as recorded: microphone and loopback side by side, starting with silence. */
export interface SweepRecording {
  microphone: RealArray;
  /** null where no loopback is patched; `latency` then tells the time */
  loopback: RealArray | null;
  /** samples from playing to recording, known otherwise: by a timing click or an earlier round trip; null when unknown */
  latency?: number | null;
  /** the interface's own round trip, divided out of the response */
  ownResponse?: ImpulseResponse | null;
  rate: number;
  /** seconds of noise alone before the sweep could be heard */
  silenceS: number;
  /** sample at which a reference click was played after the sweep had died away; the sweep's own recording ends there */
  clickAt?: number | null;
}

export interface AnalysedSweep {
  impulse: ImpulseResponse;
  decayEnd: DecayEnd;
  arrival: Arrival | null;
  /** null when nothing arrived */
  polarity: Polarity | null;
  margins: BandMargin[];
  /** total harmonic distortion of orders 2 to 5 of what is played in the channel's own band, dB re the fundamental there; -Infinity when none */
  distortionDb: number;
  harmonics: HarmonicCurves;
  /** what the reference click became; null without one */
  reference: Float32Array | null;
  verdict: Verdict;
}

/** Stored length: up to 150 ms ahead of time zero and 65536 samples in all (1.37 s at 48 kHz). */
export const STORED_SAMPLES = 65536;
/** The lower edge of the band rings for so long ahead; what is cut off of it is missing from the lows. */
const AHEAD_S = 0.15;
/** No further ahead than this share of the way to the second harmonic. */
const AHEAD_OF_HARMONIC = 0.8;

/** What the steps of `analyseSweep` are, for progress. */
export type AnalysisStep = 'align' | 'noise' | 'disturbances' | 'verdict';

/**
 * Everything that is known from one sweep: impulse response aligned by the loopback, margins, distortion, verdict.
 * @param onStep told ahead of each step
 * @throws RangeError when the rates differ, the recording is too short, or a sample is not finite
 */
export function analyseSweep(
  recording: SweepRecording,
  sweep: Sweep,
  onStep: (step: AnalysisStep) => void = () => {},
): AnalysedSweep {
  const { latency = null, ownResponse = null, rate, silenceS, clickAt = null } = recording;
  const ends = clickAt ?? recording.microphone.length;
  const microphone = recording.microphone.subarray(0, ends);
  const loopback = recording.loopback && recording.loopback.subarray(0, ends);
  if (rate !== sweep.rate)
    throw new RangeError(`analyseSweep: sweep at ${sweep.rate} Hz, recording at ${rate} Hz`);
  if (recording.loopback && recording.microphone.length !== recording.loopback.length) {
    throw new RangeError(
      `analyseSweep: ${recording.microphone.length} microphone and ${recording.loopback.length} loopback samples`,
    );
  }
  refuseNotFinite(microphone);
  if (loopback) refuseNotFinite(loopback);
  onStep('align');
  // the response is far shorter than the recording, so the transform need only hold the sweep and twice the response
  const size = fftSizeFor(Math.max(sweep.samples.length, 2 * STORED_SAMPLES));
  const slack = microphone.length - sweep.samples.length;
  const loop = loopback ? findLoopback(loopback, sweep, size, slack) : null;
  // the loopback is a cable: its gain lies near 1, so what is below -40 dB is no loopback but noise or crosstalk
  const loopbackFound = loop !== null && Math.abs(loop.peak) > 0.01;
  const timeKnown = loopbackFound || latency !== null;
  const timeZero = loopbackFound ? loop.samples : silenceS * rate + (latency ?? 0);
  const aligned = delayTrace(deconvolve(microphone, sweep, size), -timeZero);
  const spectrum = ownResponse ? divideOut(aligned, ownResponse) : aligned;
  const circular = inverseRealFft(spectrum);
  const before = Math.round(Math.min(AHEAD_S, AHEAD_OF_HARMONIC * harmonicLead(sweep, 2)) * rate);
  const { impulse, decayEnd } = trimNoise(cutImpulse(circular, rate, before, STORED_SAMPLES - before));

  onStep('noise');
  const silence = Math.min(Math.round(silenceS * rate), Math.max(0, Math.floor(timeZero)));
  const margins = signalToNoise(microphone, silence, sweep);
  const { band, snrDb } = ownMargin(margins);
  const arrival = findArrival(impulse);

  onStep('disturbances');
  const disturbances = findDisturbances(
    microphone,
    circular,
    timeZero,
    silence,
    sweep,
    // a hall rings for longer than is stored
    (0.45 * size) / rate,
    snrDb >= SILENT_DB,
    spectrum,
    arrival?.onsetS ?? 0,
  );

  onStep('verdict');
  const verdict = judgeSweep({
    margins,
    arrival,
    clipping: findClipping(microphone, rate),
    disturbances,
    loopbackFound: timeKnown,
  });
  const polarity = arrival && band ? findPolarity(impulse, arrival.onsetS, band) : null;
  const split = splitHarmonics(circular, sweep);
  const distortionDb = distortion(split, impulse, band, sweep.to);
  const harmonics = harmonicCurves(split, sweep, impulse);
  const reference =
    clickAt === null
      ? null
      : referenceResponse(recording.microphone.subarray(clickAt), rate, timeZero - silenceS * rate);
  return { impulse, decayEnd, arrival, polarity, margins, distortionDb, harmonics, reference, verdict };
}

/** What is not finite makes the sum so, too. */
function refuseNotFinite(recording: RealArray): void {
  let sum = 0;
  for (let i = 0; i < recording.length; i++) sum += recording[i]!;
  if (Number.isFinite(sum)) return;
  const at = recording.findIndex((v) => !Number.isFinite(v));
  throw new RangeError(`analyseSweep: sample ${at} of the recording is not a number`);
}

/**
 * Power of the harmonics over that of the fundamental, both counted for what is played within the channel's own band:
 * harmonic k sounds k times as high. Where it would sound above the sweep, neither is counted.
 */
function distortion(
  harmonics: HarmonicResponse[],
  impulse: ImpulseResponse,
  band: Verdict['band'],
  highest: number,
): number {
  if (!band) return -Infinity;
  const size = fftSizeFor(impulse.samples.length);
  const fundamental = powerOf(realFft(impulse.samples, size));
  const within = (power: Float64Array, binHz: number, from: number, to: number) => {
    let sum = 0;
    power.forEach((p, k) => {
      if (k * binHz >= from && k * binHz <= to) sum += p * binHz;
    });
    return sum;
  };
  let share = 0;
  for (const { order, frequency, power, noise } of harmonics) {
    const to = Math.min(band.to, highest / order);
    const played = within(fundamental, impulse.rate / size, band.from, to);
    if (!(played > 0)) continue;
    // a hertz that is played is heard spread over as many as the order
    const [found, floor] = [power, noise].map(
      (p) => within(p, frequency[1]!, order * band.from, order * to) / order,
    ) as [number, number];
    // noise lies under every harmonic; what does not stand clearly over it is none
    if (found > 2 * floor) share += (found - floor) / played;
  }
  return 10 * Math.log10(share);
}
