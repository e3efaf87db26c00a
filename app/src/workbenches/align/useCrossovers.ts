import { asSet, type CrossoverRequest } from '@pebble-hall/core/alignment';
import { CROSSOVER_KINDS, type CrossoverFilter } from '@pebble-hall/core/path';
import { plainSetting, type AlignSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { theProcessor } from '../../services/theProcessor';
import { useJob } from '../../services/useJob';
import { passesOf } from './passesOf';
import { useMostDelay } from './useSuggestions';

/** Steeper ones are tried in these orders only, at these frequencies, Hz. */
const ORDERS = [2, 3, 4, 8];
const FREQUENCIES = [63, 80, 100, 125, 160];

/** Two sources between which another crossover could stand: which one is moved, and which of them is the lower. */
export interface Crossed {
  moved: AlignSource;
  still: AlignSource;
  isMovedLow: boolean;
}

/** The two of a step, where a crossover can be set of both; null where it cannot. */
export function crossedOf(
  project: Project,
  step: AlignStep,
  movedId: string,
  point: AlignedPoint | undefined,
): Crossed | null {
  const moved = step.sources.find((s) => s.id === movedId);
  const still = step.sources.find((s) => s.id !== movedId);
  if (!point || !moved || !still || step.sources.length !== 2 || movedId === step.referenceId) return null;
  const isMovedLow = middleOf(point, moved) < middleOf(point, still);
  const [low, high] = isMovedLow ? [moved, still] : [still, moved];
  return passesOf(project, low).includes('lowPass') && passesOf(project, high).includes('highPass')
    ? { moved, still, isMovedLow }
    : null;
}

/** The middle of what a source plays, by power, in octaves. */
function middleOf(point: AlignedPoint, { id }: AlignSource): number {
  const { frequency, re, im } = point.curves.get(id)!;
  let [sum, power] = [0, 0];
  frequency.forEach((f, n) => {
    const p = re[n]! ** 2 + im[n]! ** 2;
    if (!Number.isFinite(p)) return;
    sum += p * Math.log2(f);
    power += p;
  });
  return sum / power;
}

const offered = (): CrossoverFilter[] => {
  const { crossovers } = theProcessor().profile;
  return CROSSOVER_KINDS.flatMap((kind) =>
    (crossovers[kind] ?? [])
      .filter((order) => ORDERS.includes(order))
      .flatMap((order) => FREQUENCIES.map((frequency) => ({ kind, order, frequency }))),
  );
};

/** Other crossovers that the processor offers, each with its delay and polarity; asked for only where somebody wants them. */
export function useCrossovers(
  project: Project,
  step: AlignStep,
  crossed: Crossed | null,
  points: readonly AlignedPoint[],
) {
  const mostDelayS = useMostDelay(project, step);
  const request = useMemo((): CrossoverRequest | null => {
    if (!crossed) return null;
    const { moved, still, isMovedLow } = crossed;
    return {
      points: points
        .filter((p) => p.weight > 0)
        .map((p) => ({
          reference: asSet(p.curves.get(still.id)!, { ...still, highPass: null, lowPass: null }),
          moved: asSet(p.curves.get(moved.id)!, { ...plainSetting(), gainDb: moved.gainDb }),
          weight: p.weight,
        })),
      isMovedLow,
      filters: offered(),
      mostDelayS,
    };
  }, [crossed, points, mostDelayS]);
  return useJob('align.crossovers', request);
}
