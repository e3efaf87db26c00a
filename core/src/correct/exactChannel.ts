import type { ProcessorLimits } from '../processing/index.js';
import {
  sectionBiquad,
  sectionsLevelDb,
  type Section,
  type SectionKind,
  headroomOf,
  signalPath,
  type Headroom,
} from '../path/index.js';
import { correctionFir, type PhaseStyle, type SharedPhase } from './correctionFir.js';
import { fitSections, sectionsErrorDb } from './fitSections.js';

import { firLevelDb } from './predict.js';

import type { Span } from './span.js';

/** What a correction is made of. */
export interface FilterChoice {
  /** one FIR, parametric sections only, or sections first and a FIR for what they leave */
  form: 'fir' | 'sections' | 'both';
  style: PhaseStyle;
  /** null: as many as the processor holds */
  taps: number | null;
  /** most sections per channel */
  sectionCount: number;
  kinds: SectionKind[];
  leastQ: number;
  mostQ: number;
}

export const STARTING_FILTER: FilterChoice = {
  form: 'fir',
  style: 'minimum',
  taps: null,
  sectionCount: 10,
  kinds: ['peak', 'low shelf', 'high shelf'],
  leastQ: 0.3,
  mostQ: 12,
};

/** A channel's filter as it will be loaded. */
export interface ExactChannel {
  id: string;
  /** null without a FIR */
  fir: Float32Array | null;
  sections: Section[];
  /** what both do together, on the grid, dB */
  levelDb: Float64Array;
  /** RMS over the span of what the filter does less than was designed, dB */
  errorDb: number;
  /** by how much the main arrival is later, seconds */
  latencyS: number;
  headroom: Headroom;
}

/**
 * The filter itself; takes tens of milliseconds, with sections some hundreds.
 * @param design what shall be reached
 * @param byHand sections that stand as they are; null to fit them
 */
export function exactChannel(
  grid: Float64Array,
  design: { id: string; gainDb: Float64Array; span: Span },
  limits: { maxBoostDb: number; maxCutDb: number },
  choice: FilterChoice,
  processor: ProcessorLimits,
  shared: SharedPhase | null = null,
  byHand: Section[] | null = null,
): ExactChannel {
  const { gainDb, span } = design;
  const { rate, mostTaps, mostSections } = processor;
  const count = Math.min(choice.sectionCount, mostSections);
  const sections =
    choice.form === 'fir'
      ? []
      : (byHand ??
        fitSections(grid, gainDb, span, { ...choice, ...limits, ...processor, count }, rate).sections);
  const bySections = sectionsLevelDb(sections, rate, grid);
  const rest = gainDb.map((g, i) => g - bySections[i]!);
  const made =
    choice.form === 'sections'
      ? null
      : correctionFir(grid, rest, {
          taps: Math.min(choice.taps ?? mostTaps, mostTaps),
          rate,
          // nothing shared is known: minimum phase is what mixed becomes then
          style: choice.style === 'mixed' && !shared ? 'minimum' : choice.style,
          shared,
        });
  const byFir = made ? firLevelDb(made.fir, rate, grid) : null;
  const levelDb = bySections.map((v, i) => v + (byFir?.[i] ?? 0));
  const missing = gainDb.map((g, i) => g - (byFir?.[i] ?? 0));
  return {
    id: design.id,
    fir: made?.fir ?? null,
    sections,
    levelDb,
    errorDb: sectionsErrorDb(grid, missing, span, sections, rate),
    latencyS: made?.latencyS ?? 0,
    headroom: headroomOf(
      signalPath(rate, { fir: made?.fir ?? null, filters: sections.map((s) => sectionBiquad(s, rate)) }),
    ),
  };
}
