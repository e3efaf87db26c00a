import type { SourceSetting } from '../alignment/index.js';
import type { Point } from '../geometry/index.js';

/** What a source of sound is known from. */
export type SourceOf =
  /** traces of the library: one, or several that are variants of its processing, the shown one in use */
  | { kind: 'traces'; traceIds: string[]; shownId: string }
  /**
   * channels of the plan that play the same: as they were swept, at every spot of the round under way; or as their models tell,
   * at every seat, before a microphone is up
   */
  | { kind: 'channels'; loudspeakerIds: string[]; from: 'sweeps' | 'models' }
  /** loudspeakers of one model in the open, so far away: an estimate */
  | { kind: 'distance'; referenceId: string; distanceM: number; count: number }
  /** what a measurement of the live session hears now */
  | { kind: 'live'; measurementId: string }
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
  /** what is sought over several spots or seats: the best on average, at the worst of them, or at one place alone */
  aim: 'mean' | 'worst' | 'place';
  /** how much the seats of an audience area count, by its id, where models tell; 1 where nothing is said */
  areaWeights: Record<string, number>;
  /** where modelled sources are brought together, and why there; null for none */
  alignAt: { position: Point; reason: string } | null;
  /** how many all-pass sections may be asked of the processor */
  mostAllPasses: number;
  kept: KeptSetting[];
  /** how the steps below it were set when it was: by step, then by source */
  restedOn: Record<string, Record<string, SourceSetting>>;
  /** ticked off by hand */
  isDone: boolean;
}

export const MOST_SOURCES = 6;
export const MOST_ALL_PASSES = 2;
/** so many times as much as others a seat may count */
export const MOST_WEIGHT = 10;

/** As a source is before anybody set anything. */
export const plainSetting = (): SourceSetting => ({
  gainDb: 0,
  delayS: 0,
  inverted: false,
  allPasses: [],
  highPass: null,
  lowPass: null,
});

export const settingOf = ({
  gainDb,
  delayS,
  inverted,
  allPasses,
  highPass,
  lowPass,
}: SourceSetting): SourceSetting => ({
  gainDb,
  delayS,
  inverted,
  allPasses,
  highPass,
  lowPass,
});

export const isPlain = (setting: SourceSetting): boolean => {
  const { gainDb, delayS, inverted, allPasses, highPass, lowPass } = setting;
  return gainDb === 0 && delayS === 0 && !inverted && allPasses.length === 0 && !highPass && !lowPass;
};

/** A step before anything is set in it. @param sources two or more; the first is the reference */
export const newStep = (id: string, name: string, sources: AlignSource[]): AlignStep => ({
  id,
  name,
  sources,
  referenceId: sources[0]!.id,
  target: null,
  togetherId: null,
  aim: 'mean',
  areaWeights: {},
  alignAt: null,
  mostAllPasses: 1,
  kept: [],
  restedOn: {},
  isDone: false,
});

/** What a source is made of in the end, through all groups. */
export function leavesOf(steps: readonly AlignStep[], source: AlignSource): AlignSource[] {
  const { of } = source;
  if (of.kind !== 'step') return [source];
  return (steps.find((s) => s.id === of.stepId)?.sources ?? []).flatMap((s) => leavesOf(steps, s));
}

/** Whether a source is told by models of the plan's loudspeakers. */
export const isFromModels = ({ of }: AlignSource): boolean => of.kind === 'channels' && of.from === 'models';

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
