import type { MemoryLoad, Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import type { VerifiedStage } from '../../parts/verified';
import { sentenceOf } from '../../store';
import { compareLoad, comparisonKey, type Comparison } from './compareLoad';

export interface ComparisonState {
  list: Comparison[];
  problem: string | null;
  ready: boolean;
}

const NOTHING: ComparisonState = { list: [], problem: null, ready: false };

export function useComparison(
  project: Project,
  load: MemoryLoad | null,
  spotId: string,
  stage: VerifiedStage,
): ComparisonState {
  const [result, setResult] = useState<ComparisonState & { of: string }>({ of: '', ...NOTHING });
  /** what is shown stays while more of it is measured, but nothing of another load or spot does */
  const of = `${load?.id} ${spotId} ${stage}`;
  const key = load ? comparisonKey(project, load, spotId, stage) : '';
  useEffect(() => {
    let current = true;
    setResult((r) => ({ ...r, ready: false }));
    (load ? compareLoad(project, load, spotId, stage) : Promise.resolve([]))
      .then((list) => current && setResult({ of, list, problem: null, ready: true }))
      .catch(
        (error: unknown) => current && setResult({ of, list: [], problem: sentenceOf(error), ready: true }),
      );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names everything that is computed from
  }, [key]);
  return result.of === of ? result : NOTHING;
}
