import type { CrossoverFilter } from '../path/index.js';
import { alignmentAt, findAlignments, type Alignment } from './findAlignment.js';
import type { AlignPoint } from './phaseTables.js';
import { asSet, type SourceSetting } from './sourceSetting.js';

/** Another crossover between two sources, and how they add up with it. */
export interface CrossoverSuggestion {
  /** low-pass of the one, high-pass of the other */
  filter: CrossoverFilter;
  /** delay and polarity of the moved one with it */
  alignment: Alignment;
}

export interface CrossoverRequest {
  /** both without crossovers of their own */
  points: readonly AlignPoint[];
  /** whether the moved source plays below the crossover, and the reference above it */
  isMovedLow: boolean;
  /** those that the processor offers */
  filters: readonly CrossoverFilter[];
  mostDelayS: number;
}

/** The best of each is sought at so many points at most: they tell it from the others. */
const SOUGHT_AT = 16;
/** Those that are this near, dB of the sum, are alike: the less steep comes first. */
const ALIKE_DB = 0.1;

/** What a crossover makes of a source, and nothing else. */
const passing = (pass: Partial<Pick<SourceSetting, 'highPass' | 'lowPass'>>): SourceSetting => ({
  gainDb: 0,
  delayS: 0,
  inverted: false,
  allPasses: [],
  highPass: null,
  lowPass: null,
  ...pass,
});

/** Points with a crossover between the two. */
function behind(points: readonly AlignPoint[], filter: CrossoverFilter, isMovedLow: boolean): AlignPoint[] {
  const [low, high] = [passing({ lowPass: filter }), passing({ highPass: filter })];
  return points.map(({ reference, moved, weight }) => ({
    reference: asSet(reference, isMovedLow ? high : low),
    moved: asSet(moved, isMovedLow ? low : high),
    weight,
  }));
}

/**
 * Crossovers of a list, each with the delay and polarity that it asks for: of each kind and order the frequency with which the two
 * add up most, the best first; of those that are alike the less steep.
 * @returns nothing where the two share nothing with any of them
 */
export function suggestCrossovers(request: CrossoverRequest): CrossoverSuggestion[] {
  const { points, isMovedLow, filters, mostDelayS } = request;
  const every = Math.max(1, Math.ceil(points.length / SOUGHT_AT));
  const sought = points.filter((_, i) => i % every === 0);
  const best = new Map<string, CrossoverSuggestion>();
  for (const filter of filters) {
    const [alignment] = findAlignments({
      points: behind(sought, filter, isMovedLow),
      mostDelayS,
      mostAllPasses: 0,
      aim: 'mean',
    });
    if (!alignment) continue;
    const key = `${filter.kind} ${filter.order}`;
    const before = best.get(key);
    if (!before || alignment.efficiency > before.alignment.efficiency) best.set(key, { filter, alignment });
  }
  // what is told of each holds at every point
  if (every > 1)
    for (const [key, { filter, alignment }] of best) {
      const all = alignmentAt(behind(points, filter, isMovedLow), alignment);
      if (all) best.set(key, { filter, alignment: { ...all, atEdge: alignment.atEdge } });
    }
  const found = [...best.values()].sort((a, b) => b.alignment.efficiency - a.alignment.efficiency);
  const top = found[0]?.alignment.efficiency ?? 0;
  const isAlike = (s: CrossoverSuggestion) => 20 * Math.log10(top / s.alignment.efficiency) <= ALIKE_DB;
  return [
    ...found.filter(isAlike).sort((a, b) => a.filter.order - b.filter.order),
    ...found.filter((s) => !isAlike(s)),
  ];
}
