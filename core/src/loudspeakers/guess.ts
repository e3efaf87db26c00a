import type { AxisResponse, Radiator, Way } from '../directivity/index.js';
import { needWithin } from '../limits/index.js';

/** Kinds of loudspeakers that can be guessed. */
export const GUESS_KINDS = [
  'two ways',
  'cone and horn',
  'coaxial',
  'column',
  'line element',
  'ceiling',
  'subwoofer',
] as const;
export type GuessKind = (typeof GUESS_KINDS)[number];

/** What is known of a loudspeaker by looking at it. */
export interface Guess {
  kind: GuessKind;
  /** nominal diameter of its largest cone, inches, as cones are named */
  coneIn: number;
  /** of its cabinet, or of a column its front, metres */
  widthM: number;
  heightM: number;
}

export interface GuessedLoudspeaker {
  about: string;
  ways: Way[];
  axis: AxisResponse;
  sensitivityDb: number;
  largestDb: number;
}

const INCH = 0.0254;
const SPEED = 343;
/** What moves of a cone is about 0.86 of what it is named by. */
const MOVING = 0.86;
/** Where a cone hands over: its circumference is 2.4 waves. */
const HANDS_OVER_KA = 2.4;
const TWEETER_M = 0.0125;

/**
 * A loudspeaker by its kind and size. A guess, and to be called one: cones and openings of the size that was seen, on spheres as large
 * as the front, crossed over where such cones usually are; corner, sensitivity and largest level by rules of thumb.
 */
export function guessLoudspeaker({ kind, coneIn, widthM, heightM }: Guess): GuessedLoudspeaker {
  needWithin('guessLoudspeaker', 'size of the cone in inches', coneIn, 1, 30);
  needWithin('guessLoudspeaker', 'width in m', widthM, 0.02, 5);
  needWithin('guessLoudspeaker', 'height in m', heightM, 0.02, 10);
  const radiusM = (MOVING * coneIn * INCH) / 2;
  // a sphere that shows as much front; never smaller than what moves on it
  const sphereM = Math.max(1.2 * radiusM, Math.sqrt((widthM * heightM) / Math.PI));
  const crossing = Math.round((HANDS_OVER_KA * SPEED) / (2 * Math.PI * radiusM) / 50) * 50;
  const cone: Radiator = kind === 'ceiling' ? { kind: 'piston', radiusM } : { kind: 'cap', radiusM, sphereM };
  const low = { kind: 'low-pass', frequency: crossing, order: 4 } as const;
  const high = { kind: 'high-pass', frequency: crossing, order: 4 } as const;
  const way = (radiator: Radiator, filters: Way['filters'] = [], up = 0, gainDb = 0): Way => ({
    radiator,
    ahead: 0,
    left: 0,
    up,
    gainDb,
    filters,
  });
  const opening = (w: number, h: number): Radiator => ({ kind: 'opening', widthM: w, heightM: h, sphereM });
  const apart = radiusM + 0.03;
  const horn = Math.min(0.8 * widthM, 2.2 * radiusM);
  const count = Math.max(2, Math.floor((0.95 * heightM) / (1.15 * coneIn * INCH)));
  const ways: Record<GuessKind, () => Way[]> = {
    'two ways': () => [
      way(cone, [low], -apart / 2),
      way({ kind: 'cap', radiusM: TWEETER_M, sphereM }, [high], apart / 2),
    ],
    'cone and horn': () => [way(cone, [low], -apart), way(opening(horn, 0.65 * horn), [high], 0.5 * horn)],
    coaxial: () => [way(cone, [low]), way(opening(0.9 * radiusM, 0.9 * radiusM), [high])],
    column: () =>
      Array.from({ length: count }, (_, i) =>
        way(
          { kind: 'cap', radiusM, sphereM: Math.max(1.2 * radiusM, widthM / 2) },
          [],
          (i - (count - 1) / 2) * (heightM / count),
          -20 * Math.log10(count),
        ),
      ),
    'line element': () => [
      { ...way(cone, [low], 0, -6), left: widthM / 2 - radiusM },
      { ...way(cone, [low], 0, -6), left: radiusM - widthM / 2 },
      way(opening(0.035, 0.95 * heightM), [high]),
    ],
    ceiling: () => [way(cone, [low]), way({ kind: 'piston', radiusM: 0.01 }, [high])],
    subwoofer: () => [way(cone)],
  };
  const sensitivityDb = Math.round(
    80 + 16 * Math.log10(coneIn) + (kind === 'column' ? 8 * Math.log10(count) : 0),
  );
  const isSub = kind === 'subwoofer';
  return {
    about: `A guess by kind and size: ${kind}, cone of ${coneIn} inches, front ${Math.round(100 * widthM)} by ${Math.round(100 * heightM)} cm`,
    ways: ways[kind](),
    axis: {
      kind: 'filters',
      low: { frequency: Math.max(20, (isSub ? 560 : 700) / coneIn), order: 4 },
      high: { frequency: isSub ? 240 : kind === 'column' ? 14_000 : 18_000, order: 2 },
      resonances: [],
    },
    sensitivityDb,
    largestDb: sensitivityDb + 30,
  };
}
