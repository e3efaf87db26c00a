import { SPEECH_SPECTRUM_DB } from '../acoustics/index.js';
import type { PerOctave } from '../room/index.js';
import type { Emission } from '../tracing/index.js';
import { capEmission, type CapSource } from './capSource.js';

/** How loud one speaks: A-weighted level 1 m in front of the mouth, dB (ISO 9921:2003, table A.1). */
export const VOICES = { normal: 60, raised: 66, loud: 72 } as const;
export type Voice = keyof typeof VOICES;

/** A head with a mouth in it as a cap that moves, metres. */
const [HEAD_M, MOUTH_M] = [0.09, 0.02];
export const HEAD: CapSource = { sphereM: HEAD_M, rim: Math.asin(MOUTH_M / HEAD_M) };

/** Speech per octave 1 m in front of the mouth, dB SPL (spectrum of IEC 60268-16, male); none at 63 Hz. */
export const voiceLevels = (voice: Voice): number[] => [
  -Infinity,
  ...SPEECH_SPECTRUM_DB.map((db) => VOICES[voice] + db),
];

/**
 * What a talker sends.
 * @param azimuth in which the mouth points, radians counter-clockwise from x @param elevation upwards
 */
export function talkerEmission(voice: Voice, azimuth: number, elevation = 0): Emission {
  const { table, powerDb } = capEmission(HEAD, azimuth, elevation);
  const levels = voiceLevels(voice);
  return { table, powerDb: powerDb.map((db, o): number => db + levels[o]!) as PerOctave };
}
