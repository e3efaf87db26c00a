import { correctHeadphones, type HeadphoneGoal, type ProcessorLimits } from '@pebble-hall/core/correct';
import { powerOnGrid } from '@pebble-hall/core/measure';
import { auralise, matchLoudness, pluckedStrings, safeGain, type Way } from '@pebble-hall/core/auralisation';
import { loudness } from '@pebble-hall/core/level';
import { plainOutput, predictOutput, sumImpulses, throughFeed } from '@pebble-hall/core/processing';
import { dbOfPower, gainOfDb, logGrid, pinkNoise, type ImpulseResponse } from '@pebble-hall/core/signal';
import { expose, transfer } from 'comlink';
import type { HeardWay } from './design.worker';

/** What one loudspeaker does in a candidate. */
export interface ListenWay extends Omit<HeardWay, 'trace'> {
  /** which channel of the material it plays */
  channel: number;
  /** measured at the spot; null to hear the output itself */
  impulse: HeardWay['trace'] | null;
}

export interface RenderRequest {
  /** channels of the material, at 48 kHz */
  material: Float32Array[];
  /** per candidate, per loudspeaker */
  candidates: ListenWay[][];
  matched: boolean;
  /** at the level that it has by itself, for a file; otherwise all are brought to a level to listen at */
  ownLevel?: boolean;
  /** whether it is played round and round */
  loops: boolean;
}

export interface Rendered {
  /** per candidate: its channels, all candidates at levels that compare */
  sounds: Float32Array[][];
  /** LUFS of each before matching, and what each was changed by, dB */
  loudness: number[];
  trimDb: number[];
}

const RATE = 48000;
/** What is heard is about as loud as speech in a room is played: everything is brought here by one gain. */
const LISTENING_LUFS = -23;
/** Ends of the material are faded, so that a loop has no click. */
const FADE_S = 0.004;

const delta = (): ImpulseResponse => ({ samples: Float32Array.of(1), rate: RATE, zero: 0 });

/** A response from a little ahead of its time zero on, so that no candidate waits for what the rig took. */
function fromZero({ samples, zero }: ImpulseResponse): Float64Array {
  return Float64Array.from(samples.subarray(Math.max(0, zero - 480)));
}

/** What one loudspeaker makes of the sound at the spot. */
function responseOf({ impulse, before, after, fir, feed }: ListenWay): ImpulseResponse {
  const own = predictOutput(impulse ?? delta(), before, after, fir, RATE);
  return feed ? throughFeed(own, feed) : own;
}
const asItIs = (impulse: ImpulseResponse) => ({ impulse, settings: plainOutput() });

function render({ material, candidates, matched, loops, ownLevel = false }: RenderRequest): Rendered {
  const faded = material.map((channel) => {
    if (!loops) return channel;
    const out = Float32Array.from(channel);
    const fade = Math.min(Math.round(FADE_S * RATE), out.length >> 1);
    for (let i = 0; i < fade; i++) {
      out[i] = (out[i]! * i) / fade;
      out[out.length - 1 - i] = (out[out.length - 1 - i]! * i) / fade;
    }
    return out;
  });
  const length = faded[0]!.length;
  const raw = candidates.map((ways) => {
    const inRoom = ways.some((w) => w.impulse !== null);
    // what one channel does by several loudspeakers is one response: they hear the same sound
    const parts: Way[] = [...new Set(ways.map((w) => w.channel))].map((channel) => {
      const own = ways.filter((w) => w.channel === channel).map(responseOf);
      const response = own.length === 1 ? own[0]! : sumImpulses(own.map(asItIs));
      const heard = fromZero(response);
      // in a room one microphone hears both; at the output each has a channel of its own
      const ear = (k: number) => (k === channel ? heard : new Float64Array(1));
      return {
        sound: faded[Math.min(channel, faded.length - 1)]!,
        responses: inRoom ? [heard] : [ear(0), ear(1)],
      };
    });
    return auralise(parts, length, loops);
  });
  const { loudness: values, trimDb } = matched
    ? matchLoudness(raw, RATE)
    : { loudness: raw.map((c) => loudness(c, RATE)), trimDb: raw.map(() => 0) };
  if (ownLevel) {
    const sounds = raw.map((c) => c.map((v) => Float32Array.from(v)));
    return { sounds, loudness: values, trimDb };
  }
  const first = Math.max(...values.map((v, i) => v + trimDb[i]!).filter(Number.isFinite), -120);
  const wanted = trimDb.map((t) => t + LISTENING_LUFS - first);
  const safe = safeGain(raw, wanted);
  const sounds = raw.map((channels, i) => channels.map((c) => c.map((v) => safe * gainOfDb(wanted[i]!) * v)));
  return { sounds, loudness: values, trimDb };
}

const api = {
  /** Material of our own: plucked strings or pink noise, stereo at 48 kHz. */
  material: (kind: 'strings' | 'noise'): Float32Array[] =>
    kind === 'strings'
      ? pluckedStrings(RATE)
      : [1, 2].map((seed) => Float32Array.from(pinkNoise(6 * RATE, RATE, seed), (v) => 0.1 * v)),
  /** Level of an impulse response, for headphones that come as one; 1/24 octave. */
  responseOf: (samples: Float32Array, rate: number): { frequency: number[]; levelDb: number[] } => {
    const grid = logGrid(20, Math.min(20000, 0.45 * rate), 24);
    const levels = powerOnGrid({ samples, rate, zero: 0 }, grid, 24).map(dbOfPower);
    return { frequency: [...grid], levelDb: [...levels] };
  },
  /** A correction of headphones: curves on the grid, the filter, and what it is worth. */
  headphones: (
    onEar: { frequency: number[]; levelDb: number[] },
    goal: HeadphoneGoal,
    processor: ProcessorLimits,
  ): CorrectedHeadphones => {
    const { design, exact } = correctHeadphones(logGrid(), onEar, goal, processor);
    return {
      foundDb: design.found.averageDb,
      predictedDb: design.found.averageDb.map((v, i) => v + exact.levelDb[i]!),
      targetDb: design.targetDb,
      fir: exact.fir!,
      toneDb: exact.headroom.toneDb,
      distance: design.distance,
    };
  },
  render: (request: RenderRequest): Rendered => {
    const rendered = render(request);
    return transfer(
      rendered,
      rendered.sounds.flat().map((s) => s.buffer as ArrayBuffer),
    );
  },
};
export interface CorrectedHeadphones {
  foundDb: Float64Array;
  predictedDb: Float64Array;
  targetDb: Float64Array;
  fir: Float32Array;
  toneDb: number;
  distance: { before: number; after: number };
}
export type ListenApi = typeof api;
expose(api);
