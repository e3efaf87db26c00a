import type { ExactChannel } from '@pebble-hall/core/correct';
import { designGround, sweepsUsed, type DesignGround } from '@pebble-hall/core/jobs';
import { filterPart, variantOf, type Correction, type Project } from '@pebble-hall/core/project';
import { exactFilters } from '../../../services/exactFilters';
import type { Job } from '../../../services/derivation';
import { useDerived } from '../../../services/useDerived';

const make = async (
  { ground, correction }: { ground: DesignGround; correction: Correction },
  job: Job,
): Promise<ReadonlyMap<string, ExactChannel>> => (await exactFilters(ground, correction, job)).exact;

export interface FittedFilters {
  /** by channel; null where there are none, or not yet */
  filters: ReadonlyMap<string, ExactChannel> | null;
  /** why there are none */
  state: 'none measured' | 'being made' | 'there' | 'failed';
}

/** The filters that the variant in hand has for what was measured. */
export function useFittedFilters(project: Project, isWanted: boolean): FittedFilters {
  const isMeasured = sweepsUsed(project).length > 0;
  const { value, problem } = useDerived(
    isWanted && isMeasured
      ? { ground: designGround(project), correction: filterPart(variantOf(project).correction) }
      : null,
    make,
  );
  return {
    filters: value,
    state: !isMeasured ? 'none measured' : value ? 'there' : problem ? 'failed' : 'being made',
  };
}
