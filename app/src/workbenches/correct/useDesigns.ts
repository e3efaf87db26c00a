import type { ChannelRequest } from '@pebble-hall/core/correct';
import type { Correction, Project } from '@pebble-hall/core/project';
import { useEffect, useMemo, useRef, useState } from 'react';
import { channelRequests, designAll, provideDesigns, type Designs } from '../../parts/designs';
import { sentenceOf } from '../../store';

/**
 * Designs of all channels for a correction that may still be under the hand. One request is under way at a time and the
 * latest wins, so a drag never queues up.
 */
export function useDesigns(
  project: Project,
  /** null: nothing is asked for */
  correction: Correction | null,
  /** what is looked at, while a hand moves: the others follow when it rests; null for all */
  only: string[] | null = null,
): { designs: Designs; requests: ChannelRequest[]; ready: boolean; problem: string | null } {
  const [designs, setDesigns] = useState<Designs>(new Map());
  const [problem, setProblem] = useState<string | null>(null);
  const [provided, setProvided] = useState<string | null>(null);
  const requests = useMemo(
    () => (correction ? channelRequests(project, correction) : []),
    [project, correction],
  );
  const usedKey = requests.flatMap((r) => [...r.spots, ...r.leftOut]).join('|');

  useEffect(() => {
    if (!correction) return;
    let current = true;
    provideDesigns(project, correction)
      .then(() => current && setProvided(usedKey))
      .catch((error: unknown) => current && setProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names the sweeps and their calibrations
  }, [usedKey]);

  const seen = only?.join('|') ?? null;
  const wanted = useRef<{ next: ChannelRequest[]; all: boolean } | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    if (provided !== usedKey || requests.length === 0) return;
    const ids = seen?.split('|');
    wanted.current = {
      next: ids ? requests.filter((r) => ids.includes(r.id)) : requests,
      all: ids === undefined,
    };
    const pump = async () => {
      if (busy.current) return;
      busy.current = true;
      try {
        while (wanted.current) {
          const { next, all } = wanted.current;
          wanted.current = null;
          const found = await designAll(next);
          // in the order of the channels, whichever were made anew
          setDesigns((before) => (all ? found : new Map([...before, ...found])));
          setProblem(null);
        }
      } catch (error) {
        setProblem(sentenceOf(error));
      } finally {
        busy.current = false;
      }
    };
    void pump();
  }, [requests, provided, usedKey, seen]);
  return { designs, requests, ready: provided === usedKey, problem };
}
