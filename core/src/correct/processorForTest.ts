import type { ProcessorLimits } from '../processing/index.js';

/** A processor that hardly limits anything. */
export const PROCESSOR: ProcessorLimits = {
  rate: 48000,
  mostTaps: 8192,
  mostSections: 24,
  sectionKinds: ['peak', 'low shelf', 'high shelf'],
  gainStepDb: 0.1,
  frequencyStepHz: 1,
  leastQ: 0.1,
  mostQ: 50,
  qStep: 0.01,
  leastSectionDb: -30,
  mostSectionDb: 15,
};
