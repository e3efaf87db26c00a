import { readShapes, type ReadCurve, type ReadOptions, type WantedShape } from '@pebble-hall/core/shapes';
import { impulseOfCurve, type LibraryCurve } from '@pebble-hall/core/traces';
import { impulseHead } from '@pebble-hall/core/formats';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import { encodeFlac } from './encodeFlac';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  read: ({ curve, wanted, ...options }: { curve: ReadCurve; wanted: WantedShape[] } & ReadOptions) =>
    readShapes(curve, wanted, options),
  impulse: ({ curve, rate, size }: { curve: LibraryCurve; rate: number; size: number }) => {
    const impulse = impulseOfCurve(curve, rate, size);
    return handOver(impulse, [impulse.samples]);
  },
  flac: async ({ impulses, about }: { impulses: ImpulseResponse[]; about: string[] }) => {
    const [first] = impulses as [ImpulseResponse];
    const channels = impulses.map((i) => Float64Array.from(i.samples));
    const bytes = await encodeFlac(channels, first.rate, (gainDb) =>
      [...about, ...impulseHead(first, gainDb)].join('\n'),
    );
    return handOver(bytes, [bytes]);
  },
};
export type ShapeJobs = typeof jobs;
serveJobs(jobs);
