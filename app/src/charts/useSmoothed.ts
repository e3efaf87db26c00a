import { smoothLevels, smoothVariable } from '@pebble-hall/core/signal';
import { useCallback, useMemo } from 'react';
import type { Smoothing } from './ChartTools';
import type { ChartBand, ChartTrace } from './drawTraces';

type Smooth = (levels: Float64Array) => Float64Array;

/** Curves and bands as they are shown: smoothed, each once for as long as it is the same one. */
export function useSmoothed(
  frequency: Float64Array,
  traces: ChartTrace[],
  bands: ChartBand[],
  smoothing: Smoothing | undefined,
): { shown: ChartTrace[]; shownBands: ChartBand[] } {
  const smooth = useSmooth(frequency, smoothing);
  return {
    shown: useMemo(() => traces.map((t) => ({ ...t, levels: smooth(t.levels) })), [traces, smooth]),
    shownBands: useMemo(
      () => bands.map((b) => ({ ...b, low: smooth(b.low), high: smooth(b.high) })),
      [bands, smooth],
    ),
  };
}

function useSmooth(frequency: Float64Array, smoothing: Smoothing | undefined): Smooth {
  const known = useMemo(() => {
    void [frequency, smoothing]; // what was smoothed otherwise is of no use
    return new WeakMap<Float64Array, Float64Array>();
  }, [frequency, smoothing]);
  return useCallback(
    (levels) => {
      if (!smoothing) return levels;
      const before = known.get(levels);
      if (before) return before;
      const smoothed =
        smoothing === 'variable'
          ? smoothVariable(frequency, levels)
          : smoothLevels(frequency, levels, smoothing);
      known.set(levels, smoothed);
      return smoothed;
    },
    [frequency, smoothing, known],
  );
}
