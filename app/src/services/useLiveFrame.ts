import type { LiveFrame } from '@pebble-hall/core/live';
import { useEffect, useState } from 'react';
import { liveFrames } from './liveSession';

/** Figures change this often, ms: quicker than that nobody reads them. */
const READ_MS = 200;

/** The last frame, for figures; curves follow the stream by themselves. */
export function useLiveFrame(everyMs = READ_MS): LiveFrame | null {
  const [frame, setFrame] = useState(() => liveFrames.getState().frame);
  useEffect(() => {
    let at = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      at = performance.now();
      timer = undefined;
      setFrame(liveFrames.getState().frame);
    };
    const off = liveFrames.subscribe(() => {
      timer ??= setTimeout(show, Math.max(0, everyMs - (performance.now() - at)));
    });
    return () => {
      off();
      clearTimeout(timer);
    };
  }, [everyMs]);
  return frame;
}
