import type { LiveFrame } from '@pebble-hall/core/live';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { liveFrames } from './liveSession';

/** Figures change this often, ms: quicker than that nobody reads them. */
const READ_MS = 200;

/** Tells of new frames, not more often than every so many ms, until the returned function is called. */
function onFrames(everyMs: number, tell: () => void): () => void {
  let at = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const show = () => {
    at = performance.now();
    timer = undefined;
    tell();
  };
  const off = liveFrames.subscribe(() => {
    timer ??= setTimeout(show, Math.max(0, everyMs - (performance.now() - at)));
  });
  return () => {
    off();
    clearTimeout(timer);
  };
}

/** The last frame, for figures; curves follow the stream by themselves. */
export function useLiveFrame(everyMs = READ_MS): LiveFrame | null {
  const [frame, setFrame] = useState(() => liveFrames.getState().frame);
  useEffect(() => onFrames(everyMs, () => setFrame(liveFrames.getState().frame)), [everyMs]);
  return frame;
}

/** Something of the last frame: who asks is drawn anew when it has changed, not with each frame. */
export function useOfLiveFrame<T extends string | number | boolean | null>(
  of: (frame: LiveFrame | null) => T,
): T {
  return useSyncExternalStore(
    useCallback((tell) => onFrames(READ_MS, tell), []),
    () => of(liveFrames.getState().frame),
    () => of(null),
  );
}
