import { useEffect, useState } from 'react';

interface Range {
  lowDb: number;
  highDb: number;
}

/** How often it is looked whether the axis still fits, ms. */
const LOOK_MS = 800;

/**
 * The range of an axis whose curves move: it changes only when curves leave it, or have become small in it.
 * @param wanted the range of what is drawn now; null where nothing is
 */
export function useSteadyRange(start: Range, wanted: () => Range | null): Range {
  const [range, setRange] = useState(start);
  useEffect(() => {
    const timer = setInterval(() => {
      const next = wanted();
      if (!next) return;
      setRange((now) =>
        next.highDb > now.highDb || next.lowDb < now.lowDb || next.highDb <= now.highDb - 12 ? next : now,
      );
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [wanted]);
  return range;
}
