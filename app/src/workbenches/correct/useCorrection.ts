import { channelRequests, designGround, type ChannelRequest } from '@pebble-hall/core/jobs';
import {
  measuredKey,
  variantOf,
  withCorrection,
  type Correction,
  type Project,
  shareAlignment,
} from '@pebble-hall/core/project';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { changeProject } from '../../services/changeProject';
import { Derivation } from '../../services/derivation';
import { handMoves, type Designs } from '../../services/exactFilters';
import { useDerivation } from '../../services/useDerived';
import { projectNow } from '../../store';
import { HeldCorrection } from './heldCorrection';
import { design, FOLLOWING, useRequests, useStoredDesigns, type AskedDesigns } from './useDesigns';

/** What an edit changes: values that are set whatever there was, or a function of the correction as it is stored. */
export type CorrectionChange = Partial<Correction> | ((now: Correction) => Partial<Correction>);
export type Edit = (label: string, change: CorrectionChange, done?: boolean) => void;

export const changed = (now: Correction, change: CorrectionChange): Correction =>
  shareAlignment(now, { ...now, ...(typeof change === 'function' ? change(now) : change) });

const NONE: Designs = new Map();
const askedFor = (
  { variantId, roundId }: Pick<Project, 'variantId' | 'roundId'>,
  requests: ChannelRequest[],
  looked: string[],
): AskedDesigns => ({ variantId, roundId, requests: requests.filter((r) => looked.includes(r.id)) });

export interface CorrectionInHand {
  /** the stored one, or what the hand has made of it so far */
  correction: Correction;
  edit: Edit;
  designs: Designs;
  requests: ChannelRequest[];
  /** whether the designs of all channels are there */
  ready: boolean;
  problem: string | null;
}

/**
 * The correction of the current variant, what changes it, and what its channels become. What is looked at follows the hand,
 * one request under way at a time and the latest next; the others follow when it rests.
 * @param looked ids of the channels that are looked at
 */
export function useCorrection(project: Project, looked: string[]): CorrectionInHand {
  const [{ held, moving }] = useState(() => {
    const hand = new HeldCorrection();
    return { held: hand, moving: new Derivation(design, { ...FOLLOWING, onAnswer: hand.draw }) };
  });
  const drawn = useSyncExternalStore(held.subscribe, held.drawn, held.drawn);
  const stored = variantOf(project).correction;
  const correction = drawn?.on === stored ? drawn.next : stored;

  const lookedNow = useRef(looked);
  useEffect(() => {
    lookedNow.current = looked;
  });
  const edit: Edit = useCallback(
    (label, change, done = true) => {
      const now = projectNow();
      const on = variantOf(now).correction;
      const next = changed(held.nextOf(on), change);
      if (!done) {
        handMoves();
        held.move({ on, next });
        const { current: seen } = lookedNow;
        moving.ask(askedFor(now, channelRequests(designGround(now), next, seen), seen));
        return;
      }
      held.letGo({ on, next });
      void changeProject(label, (p) => {
        const edited = withCorrection(p, (c) => changed(c, change));
        const restsOn = { roundId: p.roundId, key: measuredKey(p) };
        return {
          ...edited,
          variants: edited.variants.map((v) => (v.id === edited.variantId ? { ...v, restsOn } : v)),
        };
      }).then((ok) => !ok && held.takeBack());
    },
    [held, moving],
  );

  const all = useStoredDesigns(project, project.variantId, stored);
  const requests = useRequests(project, correction);
  const isMoving = correction !== stored || all.busy;
  const ahead = useDerivation(
    moving,
    isMoving && looked.length > 0 ? askedFor(project, requests, looked) : null,
  );
  const designs = useMemo(
    () => (ahead.value ? new Map([...(all.value ?? NONE), ...ahead.value]) : (all.value ?? NONE)),
    [all.value, ahead.value],
  );
  return {
    correction,
    edit,
    designs,
    requests,
    ready: all.value !== null,
    problem: ahead.problem ?? all.problem,
  };
}
