import { readShapes, type ReadCurve, type ReadOptions, type WantedShape } from '@pebble-hall/core/shapes';
import { serveJobs } from './serveJobs';

const jobs = {
  read: ({ curve, wanted, ...options }: { curve: ReadCurve; wanted: WantedShape[] } & ReadOptions) =>
    readShapes(curve, wanted, options),
};
export type ShapeJobs = typeof jobs;
serveJobs(jobs);
