import { loudness } from '../level/index.js';
import { sumPathsInTime } from '../path/index.js';
import { heardLevel, outputSource, type PlayedOutput } from '../processing/index.js';
import { dbOfPower, gainOfDb, logGrid, type ImpulseResponse } from '../signal/index.js';
import { auralise, matchLoudness, safeGain, type Way } from './auralise.js';

/** What one loudspeaker does in a candidate. */
export interface CandidateOutput extends Omit<PlayedOutput, 'impulse'> {
  /** which channel of the material it plays */
  channel: number;
  /** measured at the spot; null to hear the output itself */
  impulse: ImpulseResponse | null;
}

export interface RenderRequest {
  /** channels of the material, at 48 kHz */
  material: Float32Array[];
  /** per candidate, per loudspeaker */
  candidates: CandidateOutput[][];
  matched: boolean;
  /** at the level that it has by itself, for a file; otherwise all are brought to a level to listen at */
  ownLevel?: boolean;
  /** whether it is played as a loop */
  loops: boolean;
}

export interface Rendered {
  /** per candidate: its channels, all candidates at levels that compare */
  sounds: Float32Array[][];
  /** LUFS of each before matching, and what each was changed by, dB */
  loudness: number[];
  trimDb: number[];
}

export const RENDER_RATE = 48000;
/** What is heard is about as loud as speech in a room is played: everything is brought here by one gain. */
const LISTENING_LUFS = -23;
/** Ends of the material are faded, so that a loop has no click. */
const FADE_S = 0.004;
/** No candidate waits for what the rig took: responses are heard from so many samples ahead of their time zero. */
const AHEAD = 480;

const itself = (): ImpulseResponse => ({ samples: Float32Array.of(1), rate: RENDER_RATE, zero: 0 });

function fromZero({ samples, zero }: ImpulseResponse): Float64Array {
  return Float64Array.from(samples.subarray(Math.max(0, zero - AHEAD)));
}

/** A piece through several candidates, brought to one loudness (ITU-R BS.1770-4) and below full scale. */
export function renderCandidates({
  material,
  candidates,
  matched,
  loops,
  ownLevel = false,
}: RenderRequest): Rendered {
  const faded = loops ? material.map(fadeEnds) : material;
  const length = faded[0]!.length;
  const raw = candidates.map((outputs) => auralise(waysOf(outputs, faded), length, loops));
  return atListeningLevel(raw, matched, ownLevel);
}

/** A mono piece through responses of rooms, each to one ear or to two, brought to one loudness where asked and below full scale. @param loops whether it is played as a loop */
export function renderResponses({
  material,
  candidates,
  matched,
  loops,
}: {
  material: Float32Array;
  /** per candidate, per ear, at 48 kHz */
  candidates: Float64Array[][];
  matched: boolean;
  loops: boolean;
}): Rendered {
  const sound = loops ? fadeEnds(material) : material;
  const raw = candidates.map((responses) => auralise([{ sound, responses }], sound.length, loops));
  return atListeningLevel(raw, matched, false);
}

function atListeningLevel(raw: Float32Array[][], matched: boolean, ownLevel: boolean): Rendered {
  const { loudness: values, trimDb } = matched
    ? matchLoudness(raw, RENDER_RATE)
    : { loudness: raw.map((c) => loudness(c, RENDER_RATE)), trimDb: raw.map(() => 0) };
  if (ownLevel) {
    const sounds = raw.map((c) => c.map((v) => Float32Array.from(v)));
    return { sounds, loudness: values, trimDb };
  }
  const loudest = Math.max(...values.map((v, i) => v + trimDb[i]!).filter(Number.isFinite), -120);
  const wanted = trimDb.map((t) => t + LISTENING_LUFS - loudest);
  const safe = safeGain(raw, wanted);
  const sounds = raw.map((channels, i) => channels.map((c) => c.map((v) => safe * gainOfDb(wanted[i]!) * v)));
  return { sounds, loudness: values, trimDb };
}

function fadeEnds(channel: Float32Array): Float32Array {
  const out = Float32Array.from(channel);
  const fade = Math.min(Math.round(FADE_S * RENDER_RATE), out.length >> 1);
  for (let i = 0; i < fade; i++) {
    out[i] = (out[i]! * i) / fade;
    out[out.length - 1 - i] = (out[out.length - 1 - i]! * i) / fade;
  }
  return out;
}

/** What one channel does by several loudspeakers is one response: they hear the same sound. */
function waysOf(outputs: CandidateOutput[], material: Float32Array[]): Way[] {
  const isInRoom = outputs.some((o) => o.impulse !== null);
  return [...new Set(outputs.map((o) => o.channel))].map((channel) => {
    const sources = outputs
      .filter((o) => o.channel === channel)
      .map((o) => outputSource({ ...o, impulse: o.impulse ?? itself() }));
    const heard = fromZero(sumPathsInTime(sources));
    // in a room one microphone hears both; at the output each has a channel of its own
    const ear = (k: number) => (k === channel ? heard : new Float64Array(1));
    return {
      sound: material[Math.min(channel, material.length - 1)]!,
      responses: isInRoom ? [heard] : [ear(0), ear(1)],
    };
  });
}

const grid = logGrid();

/** Level of what several outputs make of one channel of the material, as it is heard; dB on the 1/48-octave grid. */
export const candidateLevels = (outputs: CandidateOutput[]): Float64Array =>
  heardLevel(
    outputs.map((o) => ({ ...o, impulse: o.impulse ?? itself() })),
    grid,
  ).map(dbOfPower);
