import { asSet, type AlignPoint, type SuggestRequest } from '@pebble-hall/core/alignment';
import { plainSetting, type AlignSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useMemo } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { useJob } from '../../services/useJob';
import { othersAt } from './useAligned';

/** Delays are tried as far as sound goes through the place; with traces from elsewhere this far at least, seconds. */
const ELSEWHERE_S = 0.05;
const MOST_S = 0.3;

/** How far delays are tried to either side, seconds. */
export function useMostDelay(project: Project, step: AlignStep): number {
  const c = speedOfSound(project.place.temperatureC);
  const isHere = step.sources.every((s) => s.of.kind === 'channels');
  return useMemo(() => {
    const { outline } = project.place.shape;
    const extent = (of: number[]) => Math.max(...of) - Math.min(...of);
    const metres = Math.hypot(extent(outline.map((p) => p.x)), extent(outline.map((p) => p.y)));
    return Math.min(MOST_S, Math.max(isHere ? 0.001 : ELSEWHERE_S, metres / c));
  }, [project.place.shape, c, isHere]);
}

/** One source against all the others at every point: the others as they are set, the moved one with its gain alone. */
export function usePairs(
  step: AlignStep,
  { id, gainDb, highPass, lowPass }: AlignSource,
  points: readonly AlignedPoint[],
): AlignPoint[] {
  return useMemo(
    () =>
      points.map((p) => ({
        reference: othersAt(step, p, id),
        moved: asSet(p.curves.get(id)!, { ...plainSetting(), gainDb, highPass, lowPass }),
        weight: p.weight,
      })),
    [step, id, gainDb, highPass, lowPass, points],
  );
}

/** Ways to bring one source to the others, worked out anew whenever any of them is another one: what the moved one's delay is now does not matter. */
export function useSuggestions(project: Project, step: AlignStep, pairs: AlignPoint[]) {
  const c = speedOfSound(project.place.temperatureC);
  const mostDelayS = useMostDelay(project, step);
  const { mostAllPasses, aim } = step;
  // asked by its contents: pairs that were only made anew ask for nothing new
  const request = useMemo(
    (): SuggestRequest | null =>
      pairs.length === 0
        ? null
        : {
            points: pairs.filter((p) => p.weight > 0),
            mostDelayS,
            mostAllPasses,
            // at one place alone, the others count for nothing
            aim: aim === 'worst' ? 'worst' : 'mean',
            speedOfSound: c,
          },
    [pairs, mostDelayS, mostAllPasses, aim, c],
  );
  return { ...useJob('align.suggest', request), mostDelayS };
}
