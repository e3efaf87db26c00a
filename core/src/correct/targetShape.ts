import { targetCurve, type TargetHandle } from './targetCurve.js';

/** What a channel shall sound like, apart from its level: handles, and two simple controls on top of them. */
export interface Target {
  handles: TargetHandle[];
  /** dB by which the lows are lifted, reached well below 120 Hz */
  lowLiftDb: number;
  /** dB per octave from 1 kHz upwards; below 0 for a falling top */
  highTiltDb: number;
  /** whether the loudspeaker's natural roll-offs are added to the shape; otherwise the shape alone is what is asked for */
  keepsRollOff: boolean;
  /** frequency to which the low end shall extend instead of its own roll-off, Hz; null keeps it as it is */
  lowExtensionHz: number | null;
  /** the same of the high end */
  highExtensionHz: number | null;
}

/** Where the lift has half its height: the shelf of first order in power. */
export const LIFT_HZ = 120;
/** Where the tilt sets in, and over how many octaves it does so. */
export const TILT_HZ = 1000;
const KNEE_OCTAVES = 0.5;

/** Level of a target without its roll-offs at each frequency, dB: handles + lift / (1 + (f / 120 Hz)^2) + tilt above 1 kHz. */
export function targetShape(
  { handles, lowLiftDb, highTiltDb }: Pick<Target, 'handles' | 'lowLiftDb' | 'highTiltDb'>,
  frequency: Float64Array,
): Float64Array {
  const curve = targetCurve(handles, frequency);
  return curve.map((level, i) => {
    const f = frequency[i]!;
    const octaves = Math.log2(f / TILT_HZ);
    // a hyperbola in place of a corner: 0 far below, octaves above 1 kHz far above
    const above = (octaves + Math.sqrt(octaves * octaves + KNEE_OCTAVES * KNEE_OCTAVES)) / 2;
    return level + lowLiftDb / (1 + (f / LIFT_HZ) ** 2) + highTiltDb * above;
  });
}
