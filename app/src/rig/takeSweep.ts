import type { AnalysedSweep } from '@pebble-hall/core/measure';
import { exponentialSweep, type Sweep as SweepSignal } from '@pebble-hall/core/signal';
import type { AnalysisApi } from '../workers/analysis.worker';
import { startWorker, type RunningWorker } from '../workers/startWorker';
import type { AudioRig, PlayOptions } from './AudioRig';

/** Silence ahead of the sweep, from which the noise is known, and after it, in which the room dies away. */
export const SILENCE_S = 0.6;
export const DECAY_S = 1.2;
const MICROPHONE = 1;
const LOOPBACK = 2;

export interface SweepSettings {
  output: number;
  levelDbfs: number;
  durationS: number;
}

let worker: RunningWorker<AnalysisApi> | undefined;
const analysis = () =>
  (worker ??= startWorker<AnalysisApi>(
    () => new Worker(new URL('../workers/analysis.worker.ts', import.meta.url), { type: 'module' }),
  ));

/** Plays one sweep on one output, records it with the loopback beside, and analyses it in a worker. */
export async function takeSweep(
  rig: AudioRig,
  settings: SweepSettings,
  options: PlayOptions = {},
): Promise<AnalysedSweep> {
  const { rate } = await rig.open();
  const sweep: SweepSignal = exponentialSweep({
    rate,
    from: 20,
    to: 20000,
    durationS: settings.durationS,
    levelDbfs: settings.levelDbfs,
  });
  const silence = Math.round(SILENCE_S * rate);
  const samples = new Float32Array(silence + sweep.samples.length);
  samples.set(sweep.samples, silence);
  const [microphone, loopback] = await rig.playAndRecord(
    {
      signals: [{ output: settings.output, samples }],
      inputs: [MICROPHONE, LOOPBACK],
      lengthFrames: samples.length + Math.round(DECAY_S * rate),
    },
    options,
  );
  const { samples: _samples, startsAt: _start, endsAt: _end, growthS: _growth, ...request } = sweep;
  return analysis().call(
    (api) =>
      api.analyse({ microphone: microphone!, loopback: loopback!, rate, silenceS: SILENCE_S }, request),
    options.signal,
  );
}

/** Records the room while nothing plays. */
export async function recordSilence(
  rig: AudioRig,
  seconds: number,
  options: PlayOptions = {},
): Promise<Float32Array> {
  const { rate } = await rig.open();
  const [microphone] = await rig.playAndRecord(
    { signals: [], inputs: [MICROPHONE], lengthFrames: Math.round(seconds * rate) },
    options,
  );
  return microphone!;
}
