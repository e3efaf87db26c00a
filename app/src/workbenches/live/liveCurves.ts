import {
  curveGroupDelayS,
  curveLevelDb,
  curvePhaseDeg,
  smoothedCurve,
  type LiveFrame,
  type TransferCurve,
} from '@pebble-hall/core/live';
import type { LiveRecord } from '@pebble-hall/core/project';
import type { LiveCurve } from '../../charts/drawLive';
import { traceColour } from '../../charts/traceColours';
import type { MeasuredPair } from '../../services/liveSettings';
import type { HeldMemory } from './heldMemory';
import type { LiveView, Lower } from './liveView';

/** The id of the average among what is drawn. */
export const AVERAGE = 'average';

export interface ShownCurve {
  id: string;
  name: string;
  colour: string;
  curve: TransferCurve;
}

const AVERAGE_NAMES = {
  power: 'average of powers',
  complex: 'complex average',
  coherence: 'average by coherence',
};

/** What is drawn of a frame, in its order: the average comes last, over the others. */
export function shownCurves(
  frame: LiveFrame | null,
  { measurements, average }: Pick<LiveRecord, 'measurements' | 'average'>,
  hidden: readonly string[],
  pairs: readonly MeasuredPair[] = [],
): ShownCurve[] {
  if (!frame) return [];
  const shown = measurements.flatMap(({ id, name }, i) => {
    const curve = frame.measured.find((m) => m.id === id)?.curve;
    return curve && !hidden.includes(id) ? [{ id, name, colour: traceColour(i), curve }] : [];
  });
  pairs.forEach(({ id, name }, i) => {
    const curve = frame.pairs.find((p) => p.id === id)?.curve;
    if (curve && !hidden.includes(id))
      shown.push({ id, name, colour: traceColour(measurements.length + i), curve });
  });
  if (frame.average && average !== 'none' && !hidden.includes(AVERAGE))
    shown.push({ id: AVERAGE, name: AVERAGE_NAMES[average], colour: 'ink', curve: frame.average });
  return shown;
}

const widthOf = (id: string, selected: string, isAverage: boolean) =>
  isAverage ? 2.6 : id === selected ? 2.4 : 1.6;

/** Smoothed curves of a frame are worked out once, whichever plots ask for them. */
const smoothedOf = new WeakMap<TransferCurve, Map<number, TransferCurve>>();
function smoothed(curve: TransferCurve, fraction: number): TransferCurve {
  const known = smoothedOf.get(curve) ?? new Map<number, TransferCurve>();
  smoothedOf.set(curve, known);
  const found = known.get(fraction) ?? smoothedCurve(curve, fraction);
  known.set(fraction, found);
  return found;
}

/** What was measured through another memory: dotted, in the colours of its measurements, under what is measured now. */
export function heldCurves(
  held: HeldMemory | null,
  { measurements }: Pick<LiveRecord, 'measurements'>,
  what: 'Level' | Exclude<Lower, 'Impulse' | 'Place'>,
  view: LiveView,
): LiveCurve[] {
  return measurements.flatMap(({ id }, i) => {
    const curve = view.hidden.includes(id) ? undefined : held?.curves.get(id);
    if (!curve) return [];
    const of = smoothed(curve, view.smoothing);
    return [
      { colour: traceColour(i), values: valuesOf(of, what, view), sure: null, width: 1.4, dash: [2, 4] },
    ];
  });
}

/** Values of one plot. */
export function plotted(
  shown: readonly ShownCurve[],
  what: 'Level' | Exclude<Lower, 'Impulse' | 'Place'>,
  view: LiveView,
  selected: string,
): LiveCurve[] {
  // what is chosen lies over the others
  const order = [...shown].sort((a, b) => Number(a.id === selected) - Number(b.id === selected));
  return order.map(({ id, colour, curve }) => {
    const of = smoothed(curve, view.smoothing);
    return {
      colour,
      values: valuesOf(of, what, view),
      sure: view.fades && what !== 'Coherence' ? of.coherence : null,
      width: widthOf(id, selected, id === AVERAGE),
    };
  });
}

export function valuesOf(
  of: TransferCurve,
  what: 'Level' | Exclude<Lower, 'Impulse' | 'Place'>,
  { turnDeg, isUnwrapped }: Pick<LiveView, 'turnDeg' | 'isUnwrapped'>,
): Float64Array {
  switch (what) {
    case 'Level':
      return curveLevelDb(of);
    case 'Phase':
      return curvePhaseDeg(of, { turnDeg, isUnwrapped });
    case 'Group delay':
      return curveGroupDelayS(of).map((s) => 1000 * s);
    case 'Coherence':
      return of.coherence;
  }
}

/**
 * Level range that shows what is sure of the curves: whole 6 dB, at least 30; null where there is nothing.
 * @param besides levels that are drawn with them, dB
 */
export function liveRange(
  shown: readonly ShownCurve[],
  besides: readonly Float64Array[] = [],
): { lowDb: number; highDb: number } | null {
  const values: number[] = besides.flatMap((b) => [...b].filter(Number.isFinite));
  for (const { curve } of shown) {
    const level = curveLevelDb(smoothed(curve, 6));
    curve.frequency.forEach((f, n) => {
      if (f >= 40 && f <= 16_000 && Number.isFinite(level[n]!) && !(curve.coherence[n]! < 0.5))
        values.push(level[n]!);
    });
  }
  if (values.length < 20) return null;
  values.sort((a, b) => a - b);
  const high = Math.ceil((values.at(-1)! + 3) / 6) * 6;
  const low = Math.floor((values[Math.floor(0.02 * values.length)]! - 3) / 6) * 6;
  return { lowDb: Math.max(Math.min(low, high - 30), high - 60), highDb: high };
}
