import { timingClick, type AnalysedSweep } from '@pebble-hall/core/measure';
import { exponentialSweep, type ImpulseResponse, type Sweep as SweepSignal } from '@pebble-hall/core/signal';
import type { AnalysisApi, MeasuredRoundTrip } from '../workers/analysis.worker';
import { startWorker, type RunningWorker } from '../workers/startWorker';
import type { AudioRig, PlayOptions, PlayRequest } from './AudioRig';

/** Silence ahead of the sweep, from which the noise is known, and after it, in which the room dies away. */
export const SILENCE_S = 0.6;
export const DECAY_S = 1.2;
/** A timing click comes this long after the start, and has this long to die away before the silence begins. */
const CLICK_AT_S = 0.1;
const HEAD_S = 0.8;

/** How time zero is known. */
export type TimeBy =
  | { by: 'loopback'; input: number }
  /** a click from another output, whose sound travels this long to the microphone */
  | { by: 'click'; output: number; travelS: number }
  | { by: 'round trip'; latencyS: number };

export interface SweepSettings {
  output: number;
  levelDbfs: number;
  durationS: number;
  microphoneInput: number;
  time: TimeBy;
  /** the interface's own response, to be divided out */
  ownResponse: ImpulseResponse | null;
}

let worker: RunningWorker<AnalysisApi> | undefined;
const analysis = () =>
  (worker ??= startWorker<AnalysisApi>(
    () => new Worker(new URL('../workers/analysis.worker.ts', import.meta.url), { type: 'module' }),
  ));

const sweepOf = (rate: number, { levelDbfs, durationS }: Pick<SweepSettings, 'levelDbfs' | 'durationS'>) =>
  exponentialSweep({ rate, from: 20, to: 20000, durationS, levelDbfs });

function withSilence({ samples, rate }: SweepSignal, headS = 0): Float32Array {
  const silence = Math.round((SILENCE_S + headS) * rate);
  const out = new Float32Array(silence + samples.length);
  out.set(samples, silence);
  return out;
}

const requestOf = ({
  samples: _samples,
  startsAt: _start,
  endsAt: _end,
  growthS: _growth,
  ...request
}: SweepSignal) => request;

/** Plays one sweep on one output, records it with what tells its time, and analyses it in a worker. */
export async function takeSweep(
  rig: AudioRig,
  settings: SweepSettings,
  options: PlayOptions = {},
): Promise<AnalysedSweep> {
  const { rate } = await rig.open();
  const { time, output, microphoneInput } = settings;
  const sweep = sweepOf(rate, settings);
  const headS = time.by === 'click' ? HEAD_S : 0;
  const samples = withSilence(sweep, headS);
  const signals: PlayRequest['signals'] = [{ output, samples }];
  if (time.by === 'click') {
    const click = new Float32Array(Math.round(headS * rate));
    click.set(timingClick(rate, settings.levelDbfs), Math.round(CLICK_AT_S * rate));
    signals.push({ output: time.output, samples: click });
  }
  const inputs = time.by === 'loopback' ? [microphoneInput, time.input] : [microphoneInput];
  const { channels, dropouts } = await rig.playAndRecord(
    { signals, inputs, lengthFrames: samples.length + Math.round(DECAY_S * rate) },
    options,
  );
  const click =
    time.by === 'click'
      ? {
          headFrames: Math.round(headS * rate),
          atFrame: Math.round(CLICK_AT_S * rate),
          travelS: time.travelS,
        }
      : null;
  const { ownResponse } = settings;
  return analysis().call(
    (api) =>
      api.analyse(
        {
          microphone: channels[0]!,
          loopback: channels[1] ?? null,
          latency: time.by === 'round trip' ? time.latencyS * rate : null,
          ownResponse,
          rate,
          silenceS: SILENCE_S,
        },
        requestOf(sweep),
        { click, dropouts },
      ),
    options.signal,
  );
}

/** Plays a sweep softly, for the loudspeaker's sake: nothing is kept of it. */
export async function playOnly(
  rig: AudioRig,
  settings: Pick<SweepSettings, 'output' | 'levelDbfs' | 'durationS' | 'microphoneInput'>,
  signal?: AbortSignal,
): Promise<void> {
  const { rate } = await rig.open();
  const { samples } = sweepOf(rate, settings);
  await rig.playAndRecord(
    {
      signals: [{ output: settings.output, samples: Float32Array.from(samples) }],
      inputs: [settings.microphoneInput],
      lengthFrames: samples.length + Math.round(0.1 * rate),
    },
    signal ? { signal } : {},
  );
}

/** Output straight to input: latency and response of the interface itself. */
export async function takeRoundTrip(
  rig: AudioRig,
  { output, input, levelDbfs }: { output: number; input: number; levelDbfs: number },
  options: PlayOptions = {},
): Promise<MeasuredRoundTrip> {
  const { rate } = await rig.open();
  // lower and higher than a loudspeaker would get, so that the ends of the band are known
  const sweep = exponentialSweep({
    rate,
    from: 5,
    to: Math.min(23000, 0.46 * rate),
    durationS: 3,
    levelDbfs,
  });
  const samples = withSilence(sweep);
  const { channels, dropouts } = await rig.playAndRecord(
    {
      signals: [{ output, samples }],
      inputs: [input],
      lengthFrames: samples.length + Math.round(DECAY_S * rate),
    },
    options,
  );
  if (dropouts > 0) throw new Error('Sound was lost on the way; close other programs and take it again.');
  return analysis().call((api) => api.roundTrip(channels[0]!, SILENCE_S, requestOf(sweep)), options.signal);
}

/** Records one input while nothing plays. */
export async function recordSilence(
  rig: AudioRig,
  input: number,
  seconds: number,
  options: PlayOptions = {},
): Promise<Float32Array> {
  const { rate } = await rig.open();
  const { channels } = await rig.playAndRecord(
    { signals: [], inputs: [input], lengthFrames: Math.round(seconds * rate) },
    options,
  );
  return channels[0]!;
}

/** How much later a loudspeaker is heard far away than close to it, seconds. */
export const travelBetween = (
  near: ImpulseResponse,
  far: ImpulseResponse,
  band: { from: number; to: number },
) => analysis().call((api) => api.travel(near, far, band));

/** What stands in a noise floor, in bands and by name. */
export const readNoise = (silence: Float32Array, rate: number, signal?: AbortSignal) =>
  analysis().call((api) => api.noise(silence, rate), signal);
