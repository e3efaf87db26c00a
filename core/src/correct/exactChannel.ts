import type { ProcessorLimits } from '../processing/index.js';
import {
  sectionBiquad,
  sectionsLevelDb,
  type Section,
  SHAPING_KINDS,
  type ShapingKind,
  headroomOf,
  signalPath,
  type Headroom,
} from '../path/index.js';
import { correctionFir, type PhaseStyle, type SharedPhase } from './correctionFir.js';
import { fitSections, MOST_FITTED, sectionsErrorDb, type SectionFit } from './fitSections.js';
import { firLevelDb } from './predict.js';
import { preRinging, type AheadInOctave } from './preRinging.js';
import type { ChannelDesign } from './designChannel.js';

/** What a correction is made of. */
export interface FilterChoice {
  /** one FIR, parametric sections only, or sections first and a FIR for what they leave */
  form: 'fir' | 'sections' | 'both';
  style: PhaseStyle;
  /** null: as many as the processor holds */
  taps: number | null;
  /** most sections per channel */
  sectionCount: number;
  kinds: ShapingKind[];
  leastQ: number;
  mostQ: number;
}

export const STARTING_FILTER: FilterChoice = {
  form: 'fir',
  style: 'minimum',
  taps: null,
  sectionCount: 10,
  kinds: [...SHAPING_KINDS],
  leastQ: 0.3,
  mostQ: 12,
};

/** What is left of a choice in a processor that cannot do all of it: without taps sections alone, without sections a FIR. */
export function withinProcessor(
  choice: FilterChoice,
  { mostTaps, mostSections, sectionKinds, leastQ, mostQ }: ProcessorLimits,
): FilterChoice {
  const kinds = choice.kinds.filter((k) => sectionKinds.includes(k));
  const least = Math.min(Math.max(choice.leastQ, leastQ), mostQ);
  return {
    ...choice,
    form: mostTaps === 0 ? 'sections' : mostSections === 0 ? 'fir' : choice.form,
    taps: choice.taps === null ? null : Math.min(choice.taps, mostTaps),
    sectionCount: Math.max(1, Math.min(choice.sectionCount, mostSections, MOST_FITTED)),
    kinds: kinds.length > 0 ? kinds : SHAPING_KINDS.filter((k) => sectionKinds.includes(k)),
    leastQ: least,
    mostQ: Math.max(least, Math.min(choice.mostQ, mostQ)),
  };
}

/** A channel's filter as it will be loaded. */
export interface ExactChannel {
  id: string;
  /** null without a FIR */
  fir: Float32Array | null;
  sections: Section[];
  /** what all sections that were allowed would leave, where fewer do nearly as well; null otherwise */
  withAll: SectionFit['withAll'];
  /** what both do together, on the grid, dB */
  levelDb: Float64Array;
  /** RMS over the span of what the filter does less than was designed, dB */
  errorDb: number;
  /** by how much the main arrival is later, seconds */
  latencyS: number;
  headroom: Headroom;
  /** by octaves; empty where the filter is of minimum phase */
  ahead: AheadInOctave[];
}

/**
 * The filter itself; takes tens of milliseconds, with sections some hundreds.
 * @param design what shall be reached
 * @param byHand sections that stand as they are; null to fit them
 */
export function exactChannel(
  grid: Float64Array,
  design: Pick<ChannelDesign, 'id' | 'gainDb' | 'span' | 'room'>,
  limits: { maxBoostDb: number; maxCutDb: number },
  asked: FilterChoice,
  processor: ProcessorLimits,
  shared: SharedPhase | null = null,
  byHand: Section[] | null = null,
): ExactChannel {
  const { gainDb, span } = design;
  const { rate, mostTaps } = processor;
  const choice = withinProcessor(asked, processor);
  const count = choice.sectionCount;
  const isFitted = choice.form !== 'fir' && !byHand;
  const fit = isFitted
    ? fitSections(grid, gainDb, span, { ...processor, ...choice, ...limits, count, room: design.room }, rate)
    : null;
  const sections = fit?.sections ?? (choice.form === 'fir' ? [] : (byHand ?? []));
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
          bounds: boundsOf(grid, design, bySections),
        });
  const byFir = made ? firLevelDb(made.fir, rate, grid) : null;
  const levelDb = bySections.map((v, i) => v + (byFir?.[i] ?? 0));
  const missing = gainDb.map((g, i) => g - (byFir?.[i] ?? 0));
  return {
    id: design.id,
    fir: made?.fir ?? null,
    sections,
    withAll: fit?.withAll ?? null,
    levelDb,
    errorDb: sectionsErrorDb(grid, missing, span, sections, rate),
    latencyS: made?.latencyS ?? 0,
    ahead: made && choice.style !== 'minimum' ? preRinging(made.fir, rate) : [],
    headroom: headroomOf(
      signalPath(rate, { fir: made?.fir ?? null, filters: sections.map((s) => sectionBiquad(s, rate)) }),
    ),
  };
}

/** What is not corrected may change by this much, dB: a filter of some taps cannot end at one frequency. */
const OUTSIDE_DB = 0.05;

/** Between what a FIR has to stay so that with the sections before it no limit is exceeded, and nothing changes outside the span. */
function boundsOf(
  grid: Float64Array,
  { span, room }: Pick<ChannelDesign, 'span' | 'room'>,
  bySections: Float64Array,
) {
  const isInside = (f: number) => f >= span.from && f <= span.to;
  return {
    highDb: grid.map((f, i) => (isInside(f) ? room.boostDb[i]! : OUTSIDE_DB) - bySections[i]!),
    lowDb: grid.map((f, i) => (isInside(f) ? -room.cutDb[i]! : -OUTSIDE_DB) - bySections[i]!),
  };
}
