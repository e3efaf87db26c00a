import { rmsDistance, type Span } from '@pebble-hall/core/correct';
import { plainOutput, playedSpan } from '@pebble-hall/core/output';
import type { MemoryLoad, Project, Sweep } from '@pebble-hall/core/project';
import { logGrid, smoothLevels } from '@pebble-hall/core/signal';
import { useEffect, useState } from 'react';
import { designWorker, traceOf } from '../../parts/designs';
import { PROCESSOR } from '../../parts/exactFilters';
import { sweepOf } from '../../parts/progress';
import { repository, sentenceOf } from '../../store';
import { missReasons } from './missReasons';
import { verifiedOf } from './useHandOver';

export const grid = logGrid();

/** One channel at a spot: as found, as predicted from what was loaded, as measured again. */
export interface Comparison {
  id: string;
  /** of its own span what it plays with the crossovers as loaded */
  span: Span;
  foundDb: Float64Array;
  predictedDb: Float64Array;
  verifiedDb: Float64Array | null;
  /** difference of verified and predicted in the span, 1/6 octave */
  difference: { rmsDb: number; worstDb: number; worstAt: number } | null;
  /** why it is not what was predicted, where it is not */
  reasons: string[];
}

export interface ComparisonState {
  list: Comparison[];
  problem: string | null;
  ready: boolean;
}

/** Comparisons of all channels of a load at a spot; computed from stored samples in a worker. */
export async function compareLoad(project: Project, load: MemoryLoad, spotId: string): Promise<Comparison[]> {
  const list: Comparison[] = [];
  for (const id of Object.keys(load.spans)) {
    const found = sweepOf(project, spotId, id);
    const output = project.place.loudspeakers.find((l) => l.id === id)?.output;
    if (!found || !output) continue;
    const filterId = load.filters[id];
    const filter = filterId ? await repository().array(filterId) : null;
    if (filterId && !filter) continue;
    const trace = await traceOf(found, project.calibrations);
    const foundDb = (await designWorker().call((api) => api.response(trace))).levelDb;
    const [before, after] = [
      load.before?.[output - 1] ?? plainOutput(),
      load.outputs?.[output - 1] ?? plainOutput(),
    ];
    const predictedDb = await designWorker().call((api) =>
      api.predicted(trace, before, after, filter?.samples ?? null),
    );
    const verified = verifiedOf(project, load, id, spotId);
    const verifiedTrace = verified && (await traceOf(verified, project.calibrations));
    const verifiedDb = verifiedTrace
      ? (await designWorker().call((api) => api.response(verifiedTrace))).levelDb
      : null;
    const span = playedSpan(load.spans[id]!, after, PROCESSOR.rate);
    const reasons =
      verified && verifiedDb
        ? missReasons(grid, {
            predictedDb: smoothLevels(grid, predictedDb, 6),
            verifiedDb: smoothLevels(grid, verifiedDb, 6),
            span,
            laterS:
              verified.arrivalS !== null && found.arrivalS !== null
                ? verified.arrivalS -
                  found.arrivalS -
                  (after.delayMs - before.delayMs) / 1000 -
                  latencyS(filter?.samples, filter?.rate)
                : null,
            marginDb: marginNear(verified, differenceOf(predictedDb, verifiedDb, span).worstAt),
            sameMemory: verified.memory.checksum === load.checksum,
          })
        : [];
    list.push({
      id,
      span,
      foundDb,
      predictedDb,
      verifiedDb,
      difference: verifiedDb && differenceOf(predictedDb, verifiedDb, span),
      reasons,
    });
  }
  return list;
}

/** How far a sweep stood above the noise where it misses most: its own band's margin, or the whole sweep's if that is less. */
function marginNear({ margins, verdict }: Sweep, frequency: number): number {
  const away = (m: Sweep['margins'][number]) => Math.abs(Math.log(m.centre / frequency));
  const near = margins.length > 0 ? margins.reduce((a, b) => (away(b) < away(a) ? b : a)) : null;
  return Math.min(verdict.marginDb, near?.marginDb ?? Infinity);
}

/** Where a filter's main tap stands: by so much it makes the sound later. */
function latencyS(fir: Float32Array | undefined, rate: number | undefined): number {
  if (!fir || !rate) return 0;
  let main = 0;
  fir.forEach((v, i) => (main = Math.abs(v) > Math.abs(fir[main]!) ? i : main));
  return main / rate;
}

const NOTHING: ComparisonState = { list: [], problem: null, ready: false };

export function useComparison(project: Project, load: MemoryLoad | null, spotId: string): ComparisonState {
  const [result, setResult] = useState<ComparisonState & { of: string }>({ of: '', ...NOTHING });
  /** what is shown stays while more of it is measured, but nothing of another load or spot does */
  const of = `${load?.id} ${spotId}`;
  const ids = load ? Object.keys(load.spans) : [];
  const key = load
    ? [
        load.id,
        spotId,
        ...ids.map(
          (id) =>
            `${sweepOf(project, spotId, id)?.traceId} ${verifiedOf(project, load, id, spotId)?.traceId}`,
        ),
      ].join('|')
    : '';
  useEffect(() => {
    let current = true;
    setResult((r) => ({ ...r, ready: false }));
    (load ? compareLoad(project, load, spotId) : Promise.resolve([]))
      .then((list) => current && setResult({ of, list, problem: null, ready: true }))
      .catch(
        (error: unknown) => current && setResult({ of, list: [], problem: sentenceOf(error), ready: true }),
      );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names everything that is computed from
  }, [key]);
  return result.of === of ? result : NOTHING;
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
