import { readShapes, type ReadCurve, type ReadOptions, type WantedShape } from '@pebble-hall/core/shapes';
import { impulseOfCurve, type LibraryCurve } from '@pebble-hall/core/traces';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  read: ({ curve, wanted, ...options }: { curve: ReadCurve; wanted: WantedShape[] } & ReadOptions) =>
    readShapes(curve, wanted, options),
  impulse: ({ curve, rate, size }: { curve: LibraryCurve; rate: number; size: number }) => {
    const impulse = impulseOfCurve(curve, rate, size);
    return handOver(impulse, [impulse.samples]);
  },
};
export type ShapeJobs = typeof jobs;
serveJobs(jobs);
