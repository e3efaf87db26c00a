import { designGround } from '@pebble-hall/core/jobs';
import type { Correction, Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { NO_SUMS, readBassSums, withBass, type BassSums } from '../../../services/bassSums';
import type { Designs, ExactFilters } from '../../../services/exactFilters';
import { useDerived } from '../../../services/useDerived';

/** The sums of a correction whose filters are made; none before, and while they are worked out. */
export function useBassSums(
  project: Project,
  correction: Correction,
  filters: ExactFilters | null,
): { sums: BassSums; problem: string | null } {
  const { value, problem } = useDerived(
    filters && { ground: designGround(project), correction, filters },
    readBassSums,
  );
  return { sums: value ?? NO_SUMS, problem };
}

/** `withBass`, worked out again only when something has changed. */
export const useWithBass = (designs: Designs, sums: BassSums, subId: string | null): Designs =>
  useMemo(() => withBass(designs, sums, subId), [designs, sums, subId]);
