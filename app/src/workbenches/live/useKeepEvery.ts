import { useEffect, useRef } from 'react';

/** Keeps by itself every so many seconds; null for not at all. */
export function useKeepEvery(everyS: number | null, keep: () => Promise<unknown>): void {
  const latest = useRef(keep);
  useEffect(() => {
    latest.current = keep;
  });
  useEffect(() => {
    if (everyS === null) return;
    const timer = setInterval(() => void latest.current(), 1000 * everyS);
    return () => clearInterval(timer);
  }, [everyS]);
}
