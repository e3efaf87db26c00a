import type { SourceSetting } from '../alignment/index.js';

/** What a source of sound is known from. */
export type SourceOf =
  /** traces of the library: one, or several that are variants of its processing, the shown one in use */
  | { kind: 'traces'; traceIds: string[]; shownId: string }
  /** a channel as it was swept, at every spot of the round under way */
  | { kind: 'channel'; loudspeakerId: string }
  /** loudspeakers of one model in the open, so far away: an estimate */
  | { kind: 'distance'; referenceId: string; distanceM: number; count: number }
  /** what was brought together in another step */
  | { kind: 'step'; stepId: string };

/** A source that is brought together with others, and how it is set for it. */
export interface AlignSource extends SourceSetting {
  id: string;
  name: string;
  of: SourceOf;
}

/** Kept beside others: how all sources of a step were set. */
export interface KeptSetting {
  id: string;
  name: string;
  /** by source id */
  settings: Record<string, SourceSetting>;
}

/** Sources that are brought together. */
export interface AlignStep {
  id: string;
  name: string;
  /** two or more */
  sources: AlignSource[];
  /** the time reference, which does not move */
  referenceId: string;
  /** a trace of the library that the levels are held against, and how far they may lie from it; null for none */
  target: { traceId: string; toleranceDb: number } | null;
  /** a trace of the library: all of them together, as it was measured; null for none */
  togetherId: string | null;
  /** what is sought over several spots */
  aim: 'mean' | 'worst';
  /** how many all-pass sections may be asked of the processor */
  mostAllPasses: number;
  kept: KeptSetting[];
  /** ticked off by hand */
  isDone: boolean;
}

export const MOST_SOURCES = 6;
export const MOST_ALL_PASSES = 2;

/** As a source is before anybody set anything. */
export const plainSetting = (): SourceSetting => ({ gainDb: 0, delayS: 0, inverted: false, allPasses: [] });

export const settingOf = ({ gainDb, delayS, inverted, allPasses }: SourceSetting): SourceSetting => ({
  gainDb,
  delayS,
  inverted,
  allPasses,
});

export const isPlain = ({ gainDb, delayS, inverted, allPasses }: SourceSetting): boolean =>
  gainDb === 0 && delayS === 0 && !inverted && allPasses.length === 0;

/** A step before anything is set in it. @param sources two or more; the first is the reference */
export const newStep = (id: string, name: string, sources: AlignSource[]): AlignStep => ({
  id,
  name,
  sources,
  referenceId: sources[0]!.id,
  target: null,
  togetherId: null,
  aim: 'mean',
  mostAllPasses: 1,
  kept: [],
  isDone: false,
});

/** The steps that a step rests on, however far down, in no order; nothing where it would rest on itself. */
export function stepsBelow(steps: readonly AlignStep[], id: string): Set<string> {
  const found = new Set<string>();
  const open = [id];
  while (open.length > 0) {
    const next = open.pop();
    const step = steps.find((s) => s.id === next);
    for (const { of } of step?.sources ?? [])
      if (of.kind === 'step' && !found.has(of.stepId)) {
        found.add(of.stepId);
        open.push(of.stepId);
      }
  }
  return found;
}

/** A step with one of its sources changed. */
export const withSource = (
  step: AlignStep,
  sourceId: string,
  change: Partial<Omit<AlignSource, 'id'>>,
): AlignStep => ({
  ...step,
  sources: step.sources.map((s) => (s.id === sourceId ? { ...s, ...change } : s)),
});

/**
 * How much later each source must play so that nothing is asked to come earlier: the setting as a processor can take it.
 * @returns seconds by source id, the earliest at 0
 */
export function playedDelays(step: Pick<AlignStep, 'sources'>): Map<string, number> {
  const earliest = Math.min(...step.sources.map((s) => s.delayS));
  return new Map(step.sources.map((s) => [s.id, s.delayS - earliest]));
}
