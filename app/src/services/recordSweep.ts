import {
  REFERENCE_TAIL_S,
  timingClick,
  type AnalysedSweep,
  type RoundTripFound,
} from '@pebble-hall/core/measure';
import type { SourceSetting } from '@pebble-hall/core/alignment';
import type { FloorAndEarRequest } from '@pebble-hall/core/spots';
import { exponentialSweep, type ImpulseResponse, type Sweep as SweepSignal } from '@pebble-hall/core/signal';
import { runJob } from './jobs';
import type { AudioRig, PlayOptions, PlayRequest } from '../ports/rig/AudioRig';

/** Silence ahead of the sweep, from which the noise is known, and after it, in which the room dies away. */
export const SILENCE_S = 0.6;
export const DECAY_S = 1.2;
/** A timing click comes this long after the start, and has this long to die away before the silence begins. */
const CLICK_AT_S = 0.1;
const HEAD_S = 0.8;

/** How time zero is known. */
export type TimeBy =
  | { by: 'loopback'; input: number }
  /** a click from another output */
  | { by: 'click'; output: number }
  | { by: 'round trip'; latencyS: number };

export interface SweepSettings {
  output: number;
  levelDbfs: number;
  durationS: number;
  /** those that listen, one input each, and how long a timing click's sound travels to them */
  microphones: { input: number; travelS: number }[];
  time: TimeBy;
  /** the interface's own response, to be divided out */
  ownResponse: ImpulseResponse | null;
  /** output that gives the reference click after the sweep has died away; null for none */
  referenceOutput: number | null;
  through?: PlayRequest['through'];
  /** in place of `output` alone: several outputs, each playing the sweep as it is set */
  together?: { output: number; as: SourceSetting }[];
}

/** What the first microphone hears while a sweep runs, against what is played. */
export interface Watched {
  samples: Float32Array;
  fromFrame: number;
  lengthFrames: number;
  rate: number;
  /** the sweep's own frequency over time; it begins at this frame of the take */
  sweep: { atFrame: number; from: number; to: number; durationS: number };
}

export type SweepOptions = Omit<PlayOptions, 'onBlock'> & { onWatch?: (watched: Watched) => void };

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

/**
 * Plays one sweep on one output, records it with every microphone and what tells its time, and analyses it in a worker.
 * @returns one for each microphone, in their order
 */
export async function recordSweep(
  rig: AudioRig,
  settings: SweepSettings,
  { onWatch, ...options }: SweepOptions = {},
): Promise<AnalysedSweep[]> {
  const { rate } = await rig.open();
  const {
    time,
    output,
    microphones,
    referenceOutput,
    ownResponse,
    levelDbfs,
    through = 'outputs',
  } = settings;
  const sweep = sweepOf(rate, settings);
  const headFrames = time.by === 'click' ? Math.round(HEAD_S * rate) : 0;
  const samples = withSilence(sweep, headFrames / rate);
  const signals: PlayRequest['signals'] = settings.together
    ? await Promise.all(
        settings.together.map(async (part) => ({
          output: part.output,
          samples: await runJob('align.played', { samples, rate, as: part.as }, { signal: options.signal }),
        })),
      )
    : [{ output, samples }];
  const soundsFor = Math.max(...signals.map((s) => s.samples.length));
  const clickAtFrame = Math.round(CLICK_AT_S * rate);
  if (time.by === 'click')
    signals.push({ output: time.output, samples: clickAt(rate, levelDbfs, clickAtFrame) });
  const decayedAt = soundsFor + Math.round(DECAY_S * rate);
  let lengthFrames = decayedAt;
  if (referenceOutput !== null) {
    signals.push({ output: referenceOutput, samples: clickAt(rate, levelDbfs, decayedAt) });
    lengthFrames += Math.round(REFERENCE_TAIL_S * rate);
  }
  const inputs = [...microphones.map((m) => m.input), ...(time.by === 'loopback' ? [time.input] : [])];
  // what it plays, fades included
  const { startsAt: from, endsAt: to, durationS } = sweep;
  const atFrame = samples.length - sweep.samples.length;
  const onBlock = (block: Float32Array, fromFrame: number) =>
    onWatch?.({ samples: block, fromFrame, lengthFrames, rate, sweep: { atFrame, from, to, durationS } });
  const { channels, dropouts } = await rig.playAndRecord(
    { signals, inputs, lengthFrames, through },
    onWatch ? { ...options, onBlock } : options,
  );
  const analysed: AnalysedSweep[] = [];
  for (const [i, { travelS }] of microphones.entries()) {
    const microphone = channels[i]!;
    const loopback = time.by === 'loopback' ? channels.at(-1)! : null;
    const isLast = i === microphones.length - 1;
    analysed.push(
      await runJob(
        'analysis.analyse',
        {
          recording: {
            microphone,
            loopback,
            latency: time.by === 'round trip' ? time.latencyS * rate : null,
            ownResponse,
            rate,
            silenceS: SILENCE_S,
            clickAt: referenceOutput === null ? null : decayedAt - headFrames,
          },
          request: requestOf(sweep),
          surroundings: {
            click: time.by === 'click' ? { headFrames, atFrame: clickAtFrame, travelS } : null,
            dropouts,
          },
        },
        // recordings are handed over, not copied; the loopback goes with the last of them
        { signal: options.signal, transfer: isLast && loopback ? [microphone, loopback] : [microphone] },
      ),
    );
  }
  return analysed;
}

/** Silence that ends with a click at a frame. */
function clickAt(rate: number, levelDbfs: number, frame: number): Float32Array {
  const click = timingClick(rate, levelDbfs);
  const out = new Float32Array(frame + click.length);
  out.set(click, frame);
  return out;
}

/** One curve of a floor and an ear microphone, in a worker. */
export const joinPair = (request: FloorAndEarRequest, signal?: AbortSignal) =>
  runJob('analysis.joinFloorAndEar', request, { signal });

/** Plays a sweep softly, for the loudspeaker's sake: nothing is kept of it. */
export async function playOnly(
  rig: AudioRig,
  settings: Pick<SweepSettings, 'output' | 'levelDbfs' | 'durationS'>,
  signal?: AbortSignal,
): Promise<void> {
  const { rate } = await rig.open();
  const { samples } = sweepOf(rate, settings);
  await rig.playAndRecord(
    {
      signals: [{ output: settings.output, samples: Float32Array.from(samples) }],
      inputs: [],
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
): Promise<RoundTripFound> {
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
  return runJob(
    'analysis.roundTrip',
    { recording: channels[0]!, silenceS: SILENCE_S, request: requestOf(sweep) },
    { signal: options.signal },
  );
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
) => runJob('analysis.travel', { near, far, band });

/** What stands in a noise floor, in bands and by name. */
export const readNoise = (silence: Float32Array, rate: number, signal?: AbortSignal) =>
  runJob('analysis.noise', { silence, rate }, { signal });
