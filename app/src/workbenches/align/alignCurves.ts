import { asSet, together, type NoPair, type PairReading } from '@pebble-hall/core/alignment';
import { curveLevelDb, curvePhaseDeg } from '@pebble-hall/core/live';
import type { AlignStep } from '@pebble-hall/core/project';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import type { LiveCurve } from '../../charts/drawLive';
import { traceColour } from '../../charts/traceColours';
import type { AlignedPoint } from '../../services/alignSources';
import { onGrid, smoothOnGrid } from '../../services/gridCurves';

const FRACTION = 12;
const wrapped = (deg: number) => deg - 360 * Math.round(deg / 360);

/** What the plots of a step draw at a point. */
export interface AlignCurves {
  levels: LiveCurve[];
  phases: LiveCurve[];
  apart: LiveCurve[];
  /** phase of the moved source against the others, smoothed, degrees; everywhere */
  apartDeg: Float64Array;
}

/**
 * The curves of a step at a point, smoothed over a twelfth of an octave.
 * @param targetDb middle of the target; null for none
 */
export function alignCurves(
  step: AlignStep,
  point: AlignedPoint,
  movedId: string,
  others: LibraryCurve,
  reading: PairReading | NoPair,
  options: { targetDb: Float64Array | null; measured: LibraryCurve | null; isUnwrapped: boolean },
): AlignCurves {
  const set = step.sources.map((s) => asSet(point.curves.get(s.id)!, s));
  const smooth = set.map((c) => smoothOnGrid(c, FRACTION));
  const sum = smoothOnGrid({ ...set[0]!, ...together(set) }, FRACTION);
  const power = smooth.map((c) => c.re.map((v, n) => v * v + c.im[n]! * c.im[n]!));
  const added = (of: (p: number) => number) =>
    power[0]!.map((_, n) => power.reduce((total, p) => total + of(p[n]!), 0));
  const weight = 'weight' in reading ? reading.weight : null;
  const sure = weight?.map((w) => (w > 0 ? 1 : 0.5)) ?? null;
  const width = (id: string) => (id === movedId ? 2.4 : 1.8);
  const own = smooth[step.sources.findIndex((s) => s.id === movedId)]!;
  const against = curvePhaseDeg(smoothOnGrid(others, FRACTION));
  const apartDeg = curvePhaseDeg(own).map((deg, n) => wrapped(deg - against[n]!));
  return {
    levels: [
      ...targetBand(step, options.targetDb),
      { colour: 'soft', dash: [2, 4], width: 1.2, values: added(Math.sqrt).map((a) => 20 * Math.log10(a)) },
      { colour: 'soft', dash: [1, 3], width: 1, values: added((p) => p).map((p) => 10 * Math.log10(p)) },
      ...smooth.map((c, i) => ({
        colour: traceColour(i),
        values: curveLevelDb(c),
        width: width(step.sources[i]!.id),
      })),
      ...(options.measured
        ? [
            {
              colour: 'ink',
              width: 1.2,
              values: curveLevelDb(smoothOnGrid(options.measured, FRACTION)),
              sure: options.measured.coherence.some((c) => !Number.isNaN(c))
                ? onGrid(options.measured).coherence
                : null,
            },
          ]
        : []),
      { colour: 'ink', dash: [7, 5], width: 2, values: curveLevelDb(sum) },
    ],
    phases: smooth.map((c, i) => ({
      colour: traceColour(i),
      values: curvePhaseDeg(c, { isUnwrapped: options.isUnwrapped, turnDeg: 0 }),
      width: width(step.sources[i]!.id),
      sure,
    })),
    apart: [
      { colour: 'soft', width: 1, values: apartDeg, sure: apartDeg.map(() => 0.5) },
      { colour: 'ink', width: 2.6, values: apartDeg.map((deg, n) => (weight && weight[n]! > 0 ? deg : NaN)) },
    ],
    apartDeg,
  };
}

function targetBand({ target }: AlignStep, targetDb: Float64Array | null): LiveCurve[] {
  if (!target || !targetDb) return [];
  const [values, upTo] = [-1, 1].map((side) => targetDb.map((v) => v + side * target.toleranceDb));
  return [{ colour: 'target', values: values!, upTo: upTo!, width: 0 }];
}
