import { curveGroupDelayS, curveLevelDb, curvePhaseDeg } from '@pebble-hall/core/live';
import type { LibraryPlot } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { BELOW_LEVEL } from '../../../charts/overFrequency';

/** What is drawn of traces over frequency. */
export type CurvePlot = Exclude<LibraryPlot, 'Spectrum' | 'Shapes'>;

const drawnValues = new WeakMap<LibraryCurve, Map<string, Float64Array>>();

const UNKNOWN = LIBRARY_GRID.map(() => NaN);
const wrapped = (deg: number) => deg - 360 * Math.round(deg / 360);

/**
 * What a plot draws of a curve of the whole grid.
 * @param against what differences are taken against; null where nothing is chosen
 */
export function valuesOf(
  curve: LibraryCurve,
  what: 'Level' | CurvePlot,
  against: LibraryCurve | null = null,
): Float64Array {
  if (what === 'Difference') {
    const base = against && curveLevelDb(against);
    return base ? curveLevelDb(curve).map((v, n) => v - base[n]!) : UNKNOWN;
  }
  if (what === 'Phase difference') {
    if (!curve.hasPhase) return UNKNOWN;
    const base = against?.hasPhase ? curvePhaseDeg(against) : null;
    return base ? curvePhaseDeg(curve).map((v, n) => wrapped(v - base[n]!)) : UNKNOWN;
  }
  const known = drawnValues.get(curve) ?? new Map<string, Float64Array>();
  drawnValues.set(curve, known);
  const values = known.get(what) ?? ownValues(curve, what);
  known.set(what, values);
  return values;
}

function ownValues(
  curve: LibraryCurve,
  what: 'Level' | Exclude<CurvePlot, 'Difference' | 'Phase difference'>,
): Float64Array {
  if (what === 'Level') return curveLevelDb(curve);
  if (what === 'Coherence') return curve.coherence;
  if (!curve.hasPhase) return UNKNOWN;
  return what === 'Phase' ? curvePhaseDeg(curve) : curveGroupDelayS(curve).map((s) => 1000 * s);
}

/** Each plot's axis. */
export const LOWER_AXES = {
  ...BELOW_LEVEL,
  Difference: { unit: 'dB', range: { lowDb: -12, highDb: 12 }, ticks: [-12, -6, 0, 6, 12] },
  'Phase difference': BELOW_LEVEL.Phase,
} as const satisfies Record<CurvePlot, unknown>;
