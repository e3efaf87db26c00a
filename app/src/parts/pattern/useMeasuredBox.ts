import type { MeasuredBox } from '@pebble-hall/core/coverage';
import type { Project } from '@pebble-hall/core/project';
import { onSharedPoints, type LibraryCurve } from '@pebble-hall/core/traces';
import { useMemo } from 'react';
import { traceName } from '../../services/libraryCurves';
import { useLibrary } from '../../services/useLibrary';
import { sentenceOf } from '../../store';

/** Traces of one box, by their ids: ahead of it, and behind it. */
export interface MeasuredFrom {
  aheadId: string;
  behindId: string;
}

const NONE: string[] = [];

/** A box by two traces, within a band; or why it cannot be had of them. Neither while they are read, or none are asked for. */
export function useMeasuredBox(
  project: Project,
  from: MeasuredFrom | null,
  [lowest, highest]: readonly [number, number],
): { box: MeasuredBox | null; problem: string | null } {
  const ids = useMemo(() => (from ? [from.aheadId, from.behindId] : NONE), [from]);
  const seen = useLibrary(project, ids);
  return useMemo(() => {
    const traces = ids.map((id) => ({ name: traceName(project, id), ...seen.get(id) }));
    const broken = traces.find((t) => t.problem);
    if (broken) return { box: null, problem: `${broken.name}: ${broken.problem}` };
    const curves = traces.flatMap((t) => t.curve ?? []);
    if (curves.length < 2) return { box: null, problem: null };
    const bare = traces.find((t) => !t.curve!.hasPhase);
    if (bare)
      return { box: null, problem: `${bare.name} has no phase: how boxes add up cannot be told by it.` };
    try {
      const box = boxOf(curves, lowest, highest);
      if (box.frequency.length < FEWEST_POINTS)
        return { box: null, problem: 'The two share too little of the band that is shown.' };
      return { box, problem: null };
    } catch (error) {
      return { box: null, problem: sentenceOf(error) };
    }
  }, [project, ids, seen, lowest, highest]);
}

/** An octave. */
const FEWEST_POINTS = 24;

/** Every second point of the library's within a band, where both are known: as many as a model is asked for. */
function boxOf(curves: readonly LibraryCurve[], lowest: number, highest: number): MeasuredBox {
  const [ahead, behind] = onSharedPoints(curves) as [LibraryCurve, LibraryCurve];
  const kept = [...ahead.frequency.keys()].filter(
    (n) =>
      n % 2 === 0 &&
      ahead.frequency[n]! >= lowest * 0.999 &&
      ahead.frequency[n]! <= highest * 1.001 &&
      Number.isFinite(ahead.re[n]! + ahead.im[n]! + behind.re[n]! + behind.im[n]!),
  );
  const of = (values: Float64Array) => Float64Array.from(kept, (n) => values[n]!);
  const parts = ({ re, im }: LibraryCurve) => ({ re: of(re), im: of(im) });
  return { frequency: of(ahead.frequency), ahead: parts(ahead), behind: parts(behind) };
}
