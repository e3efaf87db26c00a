import { rmsDistance, type Span } from '@pebble-hall/core/correct';
import type { MemoryLoad, Project } from '@pebble-hall/core/project';
import { logGrid, smoothLevels } from '@pebble-hall/core/signal';
import { useEffect, useState } from 'react';
import { designWorker, traceOf } from '../../parts/designs';
import { sweepOf } from '../../parts/progress';
import { repository, sentenceOf } from '../../store';
import { verifiedOf } from './useHandOver';

export const grid = logGrid();

/** One channel at the home spot: as found, as predicted from the filter that was loaded, as measured again. */
export interface Comparison {
  id: string;
  span: Span;
  foundDb: Float64Array;
  predictedDb: Float64Array;
  verifiedDb: Float64Array | null;
  /** difference of verified and predicted in the span, 1/6 octave */
  difference: { rmsDb: number; worstDb: number; worstAt: number } | null;
}

/** Comparisons of all channels of a load; computed from stored samples in a worker. */
export function useComparison(
  project: Project,
  load: MemoryLoad | null,
): { list: Comparison[]; problem: string | null; ready: boolean } {
  const [result, setResult] = useState<{ list: Comparison[]; problem: string | null; ready: boolean }>({
    list: [],
    problem: null,
    ready: false,
  });
  const home = project.place.spots[0]!.id;
  const ids = load ? Object.keys(load.filters) : [];
  const key = load
    ? [
        load.id,
        ...ids.map(
          (id) => `${sweepOf(project, home, id)?.traceId} ${verifiedOf(project, load, id)?.traceId}`,
        ),
      ].join('|')
    : '';
  useEffect(() => {
    let current = true;
    const compute = async () => {
      const list: Comparison[] = [];
      for (const id of load ? ids : []) {
        const found = sweepOf(project, home, id);
        const filter = await repository().array(load!.filters[id]!);
        if (!found || !filter) continue;
        const trace = await traceOf(found, project.calibrations);
        const foundDb = (await designWorker().call((api) => api.response(trace))).levelDb;
        const predictedDb = await designWorker().call((api) => api.predicted(trace, filter.samples));
        const verified = verifiedOf(project, load!, id);
        const verifiedTrace = verified && (await traceOf(verified, project.calibrations));
        const verifiedDb = verifiedTrace
          ? (await designWorker().call((api) => api.response(verifiedTrace))).levelDb
          : null;
        const span = load!.spans[id]!;
        list.push({
          id,
          span,
          foundDb,
          predictedDb,
          verifiedDb,
          difference: verifiedDb && differenceOf(predictedDb, verifiedDb, span),
        });
      }
      if (current) setResult({ list, problem: null, ready: true });
    };
    setResult((r) => ({ ...r, ready: false }));
    compute().catch(
      (error: unknown) => current && setResult({ list: [], problem: sentenceOf(error), ready: true }),
    );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names everything that is computed from
  }, [key]);
  return result;
}

export function differenceOf(
  predictedDb: Float64Array,
  verifiedDb: Float64Array,
  span: Span,
): NonNullable<Comparison['difference']> {
  const [a, b] = [predictedDb, verifiedDb].map((levels) => smoothLevels(grid, levels, 6)) as [
    Float64Array,
    Float64Array,
  ];
  let worst = -1;
  grid.forEach((f, i) => {
    if (f < span.from || f > span.to) return;
    if (worst < 0 || Math.abs(b[i]! - a[i]!) > Math.abs(b[worst]! - a[worst]!)) worst = i;
  });
  return { rmsDb: rmsDistance(grid, a, b, span), worstDb: b[worst]! - a[worst]!, worstAt: grid[worst]! };
}
