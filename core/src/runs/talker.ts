import { SPEECH_SPECTRUM_DB } from '../acoustics/index.js';
import { capGain } from '../directivity/index.js';
import { OCTAVES, type PerOctave } from '../room/index.js';
import {
  EMISSION_COLUMNS,
  EMISSION_ROWS,
  emissionDirections,
  emissionOf,
  type Emission,
} from '../tracing/index.js';

/** How loud one speaks: A-weighted level 1 m in front of the mouth, dB (ISO 9921:2003, table A.1). */
export const VOICES = { normal: 60, raised: 66, loud: 72 } as const;
export type Voice = keyof typeof VOICES;

/** A head as a rigid sphere with a mouth in it as a cap that moves (after Flanagan 1960), metres. */
const [HEAD_M, MOUTH_M] = [0.09, 0.02];
const SPEED = 343;
/** Frequencies in an octave. */
const PER_OCTAVE = 6;
const BANDS = OCTAVES.length;

/** Speech per octave 1 m in front of the mouth, dB SPL (spectrum of IEC 60268-16, male); none at 63 Hz. */
export const voiceLevels = (voice: Voice): number[] => [
  -Infinity,
  ...SPEECH_SPECTRUM_DB.map((db) => VOICES[voice] + db),
];

/** Energy off the axis of the mouth against that on it, per octave, each degree from 0 to 180. */
function offAxis(): Float64Array[] {
  return OCTAVES.map((centre) => {
    const mean = new Float64Array(181);
    for (let i = 0; i < PER_OCTAVE; i++) {
      const hz = centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5);
      const gain = capGain((2 * Math.PI * hz * HEAD_M) / SPEED, Math.asin(MOUTH_M / HEAD_M));
      for (let deg = 0; deg <= 180; deg++) {
        const { re, im } = gain((deg * Math.PI) / 180);
        mean[deg] = mean[deg]! + (re * re + im * im) / PER_OCTAVE;
      }
    }
    return mean;
  });
}
let about: Float64Array[] | undefined;

/**
 * What a talker sends.
 * @param azimuth in which the mouth points, radians counter-clockwise from x @param elevation upwards
 */
export function talkerEmission(voice: Voice, azimuth: number, elevation = 0): Emission {
  about ??= offAxis();
  const aim = [
    Math.cos(elevation) * Math.cos(azimuth),
    Math.cos(elevation) * Math.sin(azimuth),
    Math.sin(elevation),
  ] as const;
  const directions = emissionDirections();
  const energies = new Float64Array(EMISSION_ROWS * EMISSION_COLUMNS * BANDS);
  for (let i = 0; i < EMISSION_ROWS * EMISSION_COLUMNS; i++) {
    const cosine =
      directions[3 * i]! * aim[0] + directions[3 * i + 1]! * aim[1] + directions[3 * i + 2]! * aim[2];
    const deg = (Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI;
    const low = Math.min(179, Math.floor(deg));
    for (let o = 0; o < BANDS; o++) {
      const [a, b] = [about[o]![low]!, about[o]![low + 1]!];
      energies[i * BANDS + o] = a + (deg - low) * (b - a);
    }
  }
  const { table, powerDb } = emissionOf(energies);
  const levels = voiceLevels(voice);
  return { table, powerDb: powerDb.map((db, o): number => db + levels[o]!) as PerOctave };
}
