import type { MemoryLoad, Project, VerifiedStage } from '@pebble-hall/core/project';
import { useDerived } from '../../../services/useDerived';
import { compareLoad, comparisonGround, type Comparison, type ComparisonGround } from './compareLoad';

export interface ComparisonState {
  list: Comparison[];
  problem: string | null;
  ready: boolean;
}

const NONE: Comparison[] = [];
/** What is shown stays while more of it is measured, but nothing of another load or spot does. */
const OPTIONS = {
  follows: (a: ComparisonGround, b: ComparisonGround) =>
    a.load.id === b.load.id && a.spotId === b.spotId && a.stage === b.stage,
};
const compare = (ground: ComparisonGround) => compareLoad(ground);

export function useComparison(
  project: Project,
  load: MemoryLoad | null,
  spotId: string,
  stage: VerifiedStage,
): ComparisonState {
  const ground = load && comparisonGround(project, load, spotId, stage);
  const { value, problem, busy } = useDerived(ground, compare, OPTIONS);
  return { list: value ?? NONE, problem, ready: !busy };
}
