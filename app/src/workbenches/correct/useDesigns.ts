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

  const wanted = useRef<ReturnType<typeof channelRequests> | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    if (provided !== usedKey || requests.length === 0) return;
    wanted.current = requests;
    const pump = async () => {
      if (busy.current) return;
      busy.current = true;
      try {
        while (wanted.current) {
          const next = wanted.current;
          wanted.current = null;
          const found = await designAll(next);
          setDesigns(found);
          setProblem(null);
        }
      } catch (error) {
        setProblem(sentenceOf(error));
      } finally {
        busy.current = false;
      }
    };
    void pump();
  }, [requests, provided, usedKey]);
  return { designs, requests, ready: provided === usedKey, problem };
}
