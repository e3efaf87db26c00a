import { gridOver, isoLines } from '@pebble-hall/core/coverage';
import type { Corner } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import type { RunAsked } from '../../services/jobs';
import { useJob } from '../../services/useJob';

const MOST_POINTS = 2500;
/** A seat that hears less than this of what the loudest hears lies outside, dB. */
const BELOW_DB = -6;

export interface DirectSeen {
  /** at each receiver, dB */
  levels: readonly number[];
  /** where it has fallen by 6 dB from the loudest receiver, seen from above */
  lines: Corner[][];
}

/** Direct sound of one source of a run over its receivers and the floor around them; null while it is worked out, and where nothing asks. */
export function useDirect(place: Place, asked: RunAsked | null, source: number): DirectSeen | null {
  const { outline } = place.shape;
  const receivers = asked?.run.receivers;
  const grid = useMemo(() => {
    if (!receivers) return null;
    // on the level of most ears
    const heights = receivers.map((r) => r.position.z).sort((a, b) => a - b);
    const height = heights[Math.floor(heights.length / 2)]!;
    return gridOver([outline], () => height, MOST_POINTS);
  }, [outline, receivers]);
  const points = useMemo(
    () =>
      grid && receivers
        ? Float64Array.from([...receivers.flatMap(({ position: { x, y, z } }) => [x, y, z]), ...grid.points])
        : null,
    [grid, receivers],
  );
  const request = useMemo(
    () => (asked && points ? { ...asked, source, points } : null),
    [asked, source, points],
  );
  const { value } = useJob('rays.direct', request);
  return useMemo(() => {
    if (!value || !grid || !receivers) return null;
    const levels = [...value.subarray(0, receivers.length)];
    const most = Math.max(...levels);
    const over = value.subarray(receivers.length).map((v) => (Number.isFinite(v) ? v : NaN));
    return { levels, lines: Number.isFinite(most) ? isoLines(grid, over, most + BELOW_DB) : [] };
  }, [value, grid, receivers]);
}
