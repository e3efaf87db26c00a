import { LOW_CHANNEL } from '@pebble-hall/core/processing';
import type { Correction, Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { baseOutputs } from '../../parts/baseOutputs';
import { outputsOf, type ExactFilters } from '../../parts/exactFilters';
import { designKey } from '../../parts/progress';
import { sentenceOf } from '../../store';

/** What the headroom guard takes from all channels, and whose chain asks for it. */
export interface Guard {
  /** dB; 0 when it is off or nothing is needed */
  takesDb: number;
  /** largest gain of any chain, dB, with crossovers, levels and sections */
  mostDb: number;
  atHz: number;
  /** whose chain that is */
  of: string;
  /** what is asked of a subwoofer when all that send it bass carry the same at once, after what the guard takes; null where fewer than two do */
  atOnce: { feeds: number; of: string; db: number } | null;
}

/** What a correction asks of the processor's headroom once its filters are made; null before, and why it cannot be known. */
export function useGuard(
  project: Project,
  correction: Correction,
  filters: ExactFilters | null,
): Guard | string | null {
  const [state, setState] = useState<{ key: string; guard: Guard | string } | null>(null);
  // levels, delays and crossovers do not change the filters, but the chain
  const key = filters ? `${filters.key} ${designKey(project, correction)}` : null;
  useEffect(() => {
    if (!key || !filters) return;
    let current = true;
    const read = async () => {
      const { outputs } = await baseOutputs(project);
      const { largest, guardDb, allAtOnce } = await outputsOf(project, correction, filters.exact, outputs);
      const all = Object.entries(largest);
      if (!current || all.length === 0) return;
      const [id, { toneDb, atHz }] = all.reduce((a, b) => (b[1].toneDb > a[1].toneDb ? b : a));
      const nameOf = (one: string) => project.place.loudspeakers.find((l) => l.id === one)?.name ?? one;
      const of = id === LOW_CHANNEL ? id : nameOf(id);
      const atOnce = allAtOnce && {
        feeds: allAtOnce.feeds,
        of: nameOf(allAtOnce.id),
        db: allAtOnce.toneDb - guardDb,
      };
      setState({ key, guard: { takesDb: guardDb, mostDb: toneDb, atHz, of, atOnce } });
    };
    read().catch((error: unknown) => current && setState({ key, guard: sentenceOf(error) }));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that it rests on
  }, [key]);
  return state && state.key === key ? state.guard : null;
}

/** What the guard does not guard against, since programme hardly ever asks for it; empty where there is nothing. */
export function atOnceWords(guard: Guard | string | null): string {
  const atOnce = guard && typeof guard !== 'string' ? guard.atOnce : null;
  return atOnce && atOnce.db > 0.05
    ? `; the same bass in all ${atOnce.feeds} inputs at once would drive ${atOnce.of} to +${atOnce.db.toFixed(1)} dB`
    : '';
}

/** The guard in words. */
export const guardWords = (on: boolean, guard: Guard | string | null): string =>
  typeof guard === 'string'
    ? `not known: ${guard}`
    : !on
      ? guard && guard.mostDb > 0.05
        ? `off: ${guard.of} may clip by ${guard.mostDb.toFixed(1)} dB`
        : 'off'
      : guard === null
        ? 'follows with the filters'
        : guard.takesDb === 0
          ? 'takes nothing: no chain goes above 0 dB'
          : `takes ${guard.takesDb.toFixed(1)} dB from all, for ${guard.of}`;
