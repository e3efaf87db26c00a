import { useCallback } from 'react';
import type { Compute } from './derivation';
import { runJob, type InputOfJob, type JobKind, type ResultOfJob } from './jobs';
import { useDerived, type DerivedState } from './useDerived';

/** What one computation in a worker gives for an input; null asks for nothing. @param kind does not change from render to render */
export function useJob<Kind extends JobKind>(
  kind: Kind,
  input: InputOfJob<Kind> | null,
): DerivedState<ResultOfJob<Kind>> {
  const compute: Compute<{ input: InputOfJob<Kind> }, ResultOfJob<Kind>> = useCallback(
    ({ input: asked }, { signal, onProgress }) => runJob(kind, asked, { signal, onProgress }),
    [kind],
  );
  return useDerived(input === null ? null : { input }, compute);
}
