import type { SectionKind } from '../path/index.js';

/** What may be used. */
export interface SectionLimits {
  /** 1 to 24 */
  count: number;
  kinds: SectionKind[];
  leastQ: number;
  mostQ: number;
  maxBoostDb: number;
  maxCutDb: number;
  /** smallest steps that the processor takes */
  gainStepDb: number;
  frequencyStepHz: number;
  /** gain of a single section */
  leastSectionDb: number;
  mostSectionDb: number;
}
