import type { ShapingKind } from '../path/index.js';

/** What may be used. */
export interface SectionLimits {
  /** 1 to 24 */
  count: number;
  kinds: ShapingKind[];
  leastQ: number;
  mostQ: number;
  maxBoostDb: number;
  maxCutDb: number;
  /** what the sum of all may boost and cut at each frequency, dB; the limits above everywhere where it is not given */
  room?: { boostDb: Float64Array; cutDb: Float64Array };
  /** smallest steps that the processor takes */
  gainStepDb: number;
  frequencyStepHz: number;
  qStep: number;
  /** gain of a single section */
  leastSectionDb: number;
  mostSectionDb: number;
}
