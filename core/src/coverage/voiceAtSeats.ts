import { SPEECH_SPECTRUM_DB } from '../acoustics/index.js';
import type { VoiceAtSeats } from '../alignment/index.js';
import type { Point } from '../geometry/index.js';
import { weightingDb } from '../level/index.js';
import { airAbsorption, OCTAVES, type Air } from '../room/index.js';
import { emissionInto } from '../tracing/index.js';
import { talkerEmission, type Voice } from '../runs/index.js';
import { arrivalMap, pressureAtPoints, type CoverageChannel } from './levelMap.js';

/** Who helps whom, and where it is heard. */
export interface VoiceRequest {
  talker: { position: Point; azimuthDeg: number; voice: Voice };
  /** as they are set */
  channels: readonly CoverageChannel[];
  /** of the speech that the channels get, dBFS */
  signalDbfs: number;
  /** x, y, z of each seat, metres */
  points: Float64Array;
  /** m/s */
  speed: number;
  air: Air;
  /** seats nearer to the talker than this need not hear the talker first, metres */
  nearM: number;
}

/** By these octaves of speech the ear tells where it comes from: 500 Hz to 4 kHz, A-weighted. */
const HEARD_FROM = [3, 4, 5, 6];
const PER_OCTAVE = 6;
const BANDS = OCTAVES.length;

/** Direct sound of a talker and of channels that carry the speech, at seats: A-weighted levels from 500 Hz to 4 kHz, and when it arrives. */
export function voiceAtSeats({
  talker,
  channels,
  signalDbfs,
  points,
  speed,
  air,
  nearM,
}: VoiceRequest): VoiceAtSeats {
  const seats = points.length / 3;
  const { table, powerDb } = talkerEmission(talker.voice, (talker.azimuthDeg * Math.PI) / 180);
  const into = emissionInto(table);
  const out = new Float64Array(BANDS);
  const weights = HEARD_FROM.map((o) => 10 ** (weightingDb('A', OCTAVES[o]!) / 10));
  const perM = HEARD_FROM.map((o) => (airAbsorption(OCTAVES[o]!, air) * Math.LN10) / 10);
  const far = Float64Array.from({ length: seats }, (_, p) =>
    Math.hypot(
      points[3 * p]! - talker.position.x,
      points[3 * p + 1]! - talker.position.y,
      points[3 * p + 2]! - talker.position.z,
    ),
  );
  const voiceDb = far.map((r, p) => {
    const d = Math.max(r, 0.1);
    into(
      (points[3 * p]! - talker.position.x) / d,
      (points[3 * p + 1]! - talker.position.y) / d,
      (points[3 * p + 2]! - talker.position.z) / d,
      out,
    );
    const sum = HEARD_FROM.reduce(
      (s, o, k) => s + (weights[k]! * out[o]! * 10 ** (powerDb[o]! / 10) * Math.exp(-perM[k]! * d)) / (d * d),
      0,
    );
    return 10 * Math.log10(sum);
  });
  const all = 10 * Math.log10(SPEECH_SPECTRUM_DB.reduce((s, db) => s + 10 ** (db / 10), 0));
  const frequency = Float64Array.from(
    HEARD_FROM.flatMap((o) =>
      Array.from({ length: PER_OCTAVE }, (_, i) => OCTAVES[o]! * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5)),
    ),
  );
  const levelDb = channels.map((channel) => {
    const { re, im } = pressureAtPoints([channel], { speed, air, ground: null }, points, frequency);
    return Float64Array.from({ length: seats }, (_, p) => {
      let sum = 0;
      HEARD_FROM.forEach((o, k) => {
        // octaves of speech begin at 125 Hz
        const share = 10 ** ((SPEECH_SPECTRUM_DB[o - 1]! - all + signalDbfs) / 10);
        for (let i = 0; i < PER_OCTAVE; i++) {
          const n = k * PER_OCTAVE + i;
          sum += (weights[k]! * share * (re[n]![p]! ** 2 + im[n]![p]! ** 2)) / PER_OCTAVE;
        }
      });
      return sum > 0 ? 10 * Math.log10(sum) : -Infinity;
    });
  });
  return {
    voiceDb,
    voiceS: far.map((r) => r / speed),
    levelDb,
    arriveS: channels.map((channel) => arrivalMap([channel], points, speed)),
    isNear: Array.from(far, (r) => r < nearM),
  };
}
