import type { Project } from '@pebble-hall/core/project';
import { useCallback, useState } from 'react';
import { DEVICE_LOWER, type DeviceLower } from './electronics/deviceCurves';

/** What is drawn below the level. */
export const LOWER = ['Phase', 'Group delay', 'Coherence', 'Impulse', 'Place'] as const;
export type Lower = (typeof LOWER)[number];

export const PAGES = ['Transfer function', 'Spectrum', 'Electronics'] as const;
export type LivePage = (typeof PAGES)[number];

/** What is drawn beside the average of a spectrum. */
export const OVERLAYS = ['max', 'min', 'L10 to L90', 'target'] as const;
export type Overlay = (typeof OVERLAYS)[number];

/** How live curves are looked at: nothing of it changes what is measured. */
export interface LiveView {
  page: LivePage;
  lower: Lower;
  /** below the levels of a device */
  deviceLower: DeviceLower;
  overlays: Overlay[];
  /** whether the room's own noise is taken off the spectrum */
  lessNoise: boolean;
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
  page: 'Transfer function',
  lower: 'Phase',
  deviceLower: 'Wiring',
  overlays: [],
  lessNoise: false,
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
    return {
      ...view,
      page: PAGES.includes(view.page) ? view.page : PAGES[0],
      lower: LOWER.includes(view.lower) ? view.lower : 'Phase',
      deviceLower: DEVICE_LOWER.includes(view.deviceLower) ? view.deviceLower : 'Wiring',
      keepEveryS: null,
    };
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
