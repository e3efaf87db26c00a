/** What a processor can do, as data: fields, checks and messages are made from it. */
export interface ProcessorProfile {
  model: string;
  /** inputs and outputs, counted from 1 */
  outputs: number;
  rate: number;
  /** from input to output without a filter */
  latencyMs: number;
  /** names of its memories, in order */
  memories: readonly string[];
  /** per output */
  mostTaps: number;
  mostSections: number;
  gainStepDb: number;
  frequencyStepHz: number;
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
  'rate' | 'mostTaps' | 'mostSections' | 'gainStepDb' | 'frequencyStepHz' | 'leastSectionDb' | 'mostSectionDb'
>;
