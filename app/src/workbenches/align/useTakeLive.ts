import type { Project } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { keepLive } from '../../services/keepTrace';
import { liveSession } from '../../services/liveSession';

/** Keeps what the first measurement of the live session hears now, as a trace; null while no session is on. */
export function useTakeLive(project: Project): (() => Promise<string | null>) | null {
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const [first] = project.live.measurements;
  if (!isOn || !first) return null;
  return async () => (await keepLive(first.id, null))?.id ?? null;
}

/** In a list of traces: the one that is heard now. */
export const FROM_LIVE = { value: 'live now', label: 'from Live, as it is now' };
