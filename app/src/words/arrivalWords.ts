import type { Point } from '@pebble-hall/core/geometry';

interface Told {
  laterS: number;
  /** against the direct sound */
  db: number;
  /** names of the faces that it met, in order */
  faces: readonly string[];
}

const ms = (s: number) => `${(1000 * s).toFixed(1)} ms`;
const level = (db: number) => `${db.toFixed(1).replace('-', '\u2212')} dB`;
const off = (faces: readonly string[]) =>
  faces.length === 1
    ? `off ${faces[0]!}`
    : `off ${faces.slice(0, -1).join(', then ')}, then ${faces.at(-1)!}`;

/** Where something comes from, for one who looks along an azimuth, radians. @param going unit vector in which it travels */
export function directionWords({ x, y, z }: Point, facing: number): string {
  const up = Math.round((Math.asin(Math.max(-1, Math.min(1, -z))) * 180) / Math.PI);
  const turn = ((((Math.atan2(-y, -x) - facing) * 180) / Math.PI + 540) % 360) - 180;
  const side = turn > 0 ? 'left' : 'right';
  const around = Math.abs(turn);
  const where =
    Math.abs(up) > 75
      ? ''
      : around < 15
        ? 'from ahead'
        : around > 165
          ? 'from behind'
          : `from ${Math.round(around)}\u00b0 to the ${side}`;
  const high = Math.abs(up) < 5 ? '' : `${Math.abs(up)}\u00b0 ${up > 0 ? 'up' : 'down'}`;
  return [where, high].filter(Boolean).join(', ');
}

/** One arrival in a sentence. */
export const arrivalSentence = ({ laterS, db, faces, direction }: Told & { direction: string }): string =>
  faces.length === 0
    ? `The direct sound, ${direction}.`
    : `${ms(laterS)} after it and at ${level(db)}, ${direction}: ${off(faces)}.`;

/** The loudest that comes too late to help speech. @param late null for none */
export const lateSentence = (late: Told | null): string =>
  late
    ? `The loudest after 50 ms comes at ${ms(late.laterS)} with ${level(late.db)}, ${off(late.faces)}.`
    : 'Nothing of it comes later than 50 ms.';

/** What treating a surface does to an arrival. @param share that it then swallows @param nowDb @param thenDb against the direct sound */
export const treatedSentence = (surface: string, share: number, nowDb: number, thenDb: number): string =>
  nowDb - thenDb < 0.1
    ? `${surface} swallows most of it already.`
    : `Swallowing ${Math.round(100 * share)} % ${surface} would take it from ${level(nowDb)} to ${level(thenDb)}.`;
