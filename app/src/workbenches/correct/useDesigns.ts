import { channelRequests, designGround, type ChannelRequest } from '@pebble-hall/core/jobs';
import type { Correction, Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { DerivationOptions, Job } from '../../services/derivation';
import { designAll, type Designs } from '../../services/exactFilters';
import { useAlike, useDerived, type DerivedState } from '../../services/useDerived';

/** What designs are asked for with. */
export interface AskedDesigns {
  /** designs of another variant or round never stand for these */
  variantId: string;
  roundId: string;
  requests: ChannelRequest[];
}

export const design = ({ requests }: AskedDesigns, { signal }: Job): Promise<Designs> =>
  designAll(requests, { signal });

/** Designs of the same variant and round stand until the next ones are there. */
export const FOLLOWING: DerivationOptions<AskedDesigns> = {
  follows: (a, b) => a.variantId === b.variantId && a.roundId === b.roundId,
  sharesParts: true,
};

/** The requests for the designs of all channels for a correction; none for null. */
export function useRequests(project: Project, correction: Correction | null): ChannelRequest[] {
  const ground = useAlike(designGround(project));
  return useMemo(() => (correction ? channelRequests(ground, correction) : []), [ground, correction]);
}

/** Designs of all channels for a correction as it is stored; null asks for nothing. */
export function useStoredDesigns(
  project: Project,
  variantId: string,
  correction: Correction | null,
): DerivedState<Designs> {
  const requests = useRequests(project, correction);
  const { roundId } = project;
  return useDerived(requests.length > 0 ? { variantId, roundId, requests } : null, design, FOLLOWING);
}
