import { channelRequests, designGround, type ChannelRequest } from '@pebble-hall/core/jobs';
import { variantOf, type Correction, type Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { Job } from '../../services/derivation';
import { designAll, type Designs } from '../../services/exactFilters';
import { useAlike, useDerived, type DerivedState } from '../../services/useDerived';

interface Asked {
  /** designs of another variant or round never stand for these */
  variantId: string;
  roundId: string;
  requests: ChannelRequest[];
}

const design = ({ requests }: Asked, { signal }: Job) => designAll(requests, { signal });
const OPTIONS = {
  follows: (a: Asked, b: Asked) => a.variantId === b.variantId && a.roundId === b.roundId,
};
const NONE: Designs = new Map();

/** What the designs of a correction are asked for with. */
function useRequests(project: Project, correction: Correction | null): ChannelRequest[] {
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
  return useDerived(requests.length > 0 ? { variantId, roundId, requests } : null, design, OPTIONS);
}

/**
 * Designs of all channels for a correction that may still be under the hand. What is looked at follows the hand, one request
 * under way at a time and the latest next; the others follow when it rests.
 * @param looked ids of the channels that are looked at
 */
export function useDesigns(
  project: Project,
  correction: Correction,
  looked: string[],
): { designs: Designs; requests: ChannelRequest[]; ready: boolean; problem: string | null } {
  const { roundId, variantId } = project;
  const stored = variantOf(project).correction;
  const all = useStoredDesigns(project, variantId, stored);
  const requests = useRequests(project, correction);
  const isMoving = correction !== stored || all.busy;
  const moving = useDerived(
    isMoving && looked.length > 0
      ? { variantId, roundId, requests: requests.filter((r) => looked.includes(r.id)) }
      : null,
    design,
    OPTIONS,
  );
  const designs = useMemo(
    () => (moving.value ? new Map([...(all.value ?? NONE), ...moving.value]) : (all.value ?? NONE)),
    [all.value, moving.value],
  );
  return { designs, requests, ready: all.value !== null, problem: moving.problem ?? all.problem };
}
