import { describeNoise, travelDifference, type NoiseTrait } from '@pebble-hall/core/commissioning';
import {
  analyseSweep,
  cutImpulse,
  deconvolve,
  findTimingClick,
  impulseFrom,
  loopbackTime,
  noiseSpectrum,
  STORED_SAMPLES,
  type AnalysedSweep,
  type SweepRecording,
} from '@pebble-hall/core/measure';
import { joinFloorAndEar, type FloorAndEarRequest, type JoinedResponse } from '@pebble-hall/core/spots';
import {
  exponentialSweep,
  fftSizeFor,
  type ImpulseResponse,
  type SweepRequest,
} from '@pebble-hall/core/signal';
import { expose, transfer } from 'comlink';

/** What surrounds a recording: a click in a head that comes before it, and sound that was lost. */
export interface Around {
  click: { headFrames: number; atFrame: number; travelS: number } | null;
  dropouts: number;
}

export interface MeasuredRoundTrip {
  /** null when nothing came back */
  found: { latencyS: number; impulse: ImpulseResponse; gainDb: number } | null;
}

const api = {
  analyse: (whole: SweepRecording, request: SweepRequest, { click, dropouts }: Around): AnalysedSweep => {
    let recording = whole;
    let clickMissing = false;
    if (click) {
      const head = whole.microphone.subarray(0, click.headFrames);
      const at = findTimingClick(head, whole.rate);
      const latency = at === null ? null : at - click.atFrame - click.travelS * whole.rate;
      clickMissing = latency === null;
      recording = { ...whole, microphone: whole.microphone.subarray(click.headFrames), latency };
    }
    const analysed = analyseSweep(recording, exponentialSweep(request));
    const { verdict } = analysed;
    if (clickMissing)
      verdict.reasons = verdict.reasons.map((r) => (r.kind === 'no loopback' ? { kind: 'no click' } : r));
    if (dropouts > 0) {
      verdict.state = 'failed';
      verdict.reasons.unshift({ kind: 'dropouts', count: dropouts });
    }
    return transfer(analysed, [analysed.impulse.samples.buffer]);
  },
  roundTrip: (recording: Float32Array, silenceS: number, request: SweepRequest): MeasuredRoundTrip => {
    const sweep = exponentialSweep(request);
    const size = fftSizeFor(recording.length);
    const spectrum = deconvolve(recording, sweep, size);
    const { samples, peak } = loopbackTime(spectrum, sweep, recording.length - sweep.samples.length);
    const latencyS = samples / sweep.rate - silenceS;
    if (Math.abs(peak) < 0.003 || latencyS < 0) return { found: null };
    // the band's lower end rings long ahead of the arrival, too
    const before = Math.round(0.5 * sweep.rate);
    const impulse = cutImpulse(impulseFrom(spectrum, samples), sweep.rate, before, STORED_SAMPLES - before);
    return { found: { latencyS, impulse, gainDb: 20 * Math.log10(Math.abs(peak)) } };
  },
  join: (request: FloorAndEarRequest): JoinedResponse => joinFloorAndEar(request),
  /** How much later a loudspeaker is heard far away than close to it, seconds; null when that cannot be told. */
  travel: (near: ImpulseResponse, far: ImpulseResponse, band: { from: number; to: number }): number | null =>
    travelDifference(near, far, band),
  noise: (
    silence: Float32Array,
    rate: number,
  ): { bands: { centre: number; noiseDb: number }[]; traits: NoiseTrait[] } => ({
    bands: noiseSpectrum(silence, rate),
    traits: describeNoise(silence, rate),
  }),
};
export type AnalysisApi = typeof api;
expose(api);
