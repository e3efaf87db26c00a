import type { Project } from '@pebble-hall/core/project';
import { useCallback, useState } from 'react';

/** What is drawn below the level. */
export const LOWER = ['Phase', 'Group delay', 'Coherence', 'Impulse', 'Place'] as const;
export type Lower = (typeof LOWER)[number];

/** How live curves are looked at: nothing of it changes what is measured. */
export interface LiveView {
  lower: Lower;
  /** octave fraction */
  smoothing: 3 | 6 | 12 | 24 | 48;
  isUnwrapped: boolean;
  /** degrees, by hand */
  turnDeg: number;
  /** whether curves fade where coherence falls */
  fades: boolean;
  delayUnit: 'ms' | 'm' | 'ft' | 'samples';
  /** the band in which a delay is looked for; null for all of it */
  findBand: { from: number; to: number } | null;
  /** seconds from one trace to the next that is kept by itself; null for none */
  keepEveryS: number | null;
  /** ids of what is not drawn */
  hidden: string[];
}

const START: LiveView = {
  lower: 'Phase',
  smoothing: 12,
  isUnwrapped: false,
  turnDeg: 0,
  fades: true,
  delayUnit: 'ms',
  findBand: null,
  keepEveryS: null,
  hidden: [],
};
const KEY = 'pebble-hall.live-view';

function kept(projectId: string): LiveView {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, Partial<LiveView>>;
    const view = { ...START, ...found[projectId] };
    return { ...view, lower: LOWER.includes(view.lower) ? view.lower : 'Phase', keepEveryS: null };
  } catch {
    return START;
  }
}

/** The view of a project's session, kept in this browser. */
export function useLiveView({ id }: Pick<Project, 'id'>): [LiveView, (change: Partial<LiveView>) => void] {
  const [view, setView] = useState(() => kept(id));
  const change = useCallback(
    (part: Partial<LiveView>) =>
      setView((now) => {
        const next = { ...now, ...part };
        try {
          const all = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, LiveView>;
          localStorage.setItem(KEY, JSON.stringify({ ...all, [id]: next }));
        } catch {
          // a full or closed store costs only that the view is forgotten
        }
        return next;
      }),
    [id],
  );
  return [view, change];
}
