import type { CrossoverKind, SectionKind } from '../path/index.js';

/** What a processor can do, as data: fields, checks and messages are made from it. */
export interface ProcessorProfile {
  model: string;
  /** inputs and outputs, counted from 1 */
  outputs: number;
  rate: number;
  /** from input to output without a filter */
  latencyMs: number;
  /** names of its memories, in order; none where it has none, or nobody can reach them from here */
  memories: readonly string[];
  /** per output; 0 where it holds none */
  mostTaps: number;
  mostSections: number;
  /** kinds of sections that it knows */
  sectionKinds: readonly SectionKind[];
  /** crossovers that it knows, by kind: their orders */
  crossovers: Readonly<Partial<Record<CrossoverKind, readonly number[]>>>;
  /** whether it can send the bass of channels to subwoofers */
  bassManagement: boolean;
  gainStepDb: number;
  frequencyStepHz: number;
  leastQ: number;
  mostQ: number;
  qStep: number;
  /** of a single section */
  leastSectionDb: number;
  mostSectionDb: number;
  /** of an output */
  leastTrimDb: number;
  mostTrimDb: number;
  trimStepDb: number;
  mostDelayMs: number;
  delayStepMs: number;
}

/** What a design asks of a processor. */
export type ProcessorLimits = Pick<
  ProcessorProfile,
  | 'rate'
  | 'mostTaps'
  | 'mostSections'
  | 'sectionKinds'
  | 'gainStepDb'
  | 'frequencyStepHz'
  | 'leastQ'
  | 'mostQ'
  | 'qStep'
  | 'leastSectionDb'
  | 'mostSectionDb'
>;

export const limitsOf = (profile: ProcessorProfile): ProcessorLimits => ({
  rate: profile.rate,
  mostTaps: profile.mostTaps,
  mostSections: profile.mostSections,
  sectionKinds: profile.sectionKinds,
  gainStepDb: profile.gainStepDb,
  frequencyStepHz: profile.frequencyStepHz,
  leastQ: profile.leastQ,
  mostQ: profile.mostQ,
  qStep: profile.qStep,
  leastSectionDb: profile.leastSectionDb,
  mostSectionDb: profile.mostSectionDb,
});
