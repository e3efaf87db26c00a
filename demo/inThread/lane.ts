import type { JobContext } from '../../app/src/workers/serveJobs';
import type { JobOptions } from '../../app/src/workers/lane';
import { served } from './serveJobs';

/** A worker's jobs done at once, in the thread that asks; `make` gives what tells the worker's address. */
export function lane(make: () => { url: URL }) {
  return {
    async run(job: string, input: unknown, { onProgress }: JobOptions = {}) {
      const name = /([^/]+)\.worker/.exec(make().url.href)?.[1] ?? '';
      const handler = served.get(name)?.[job];
      if (!handler) throw new Error(`There is no job ${name}.${job}.`);
      const context: JobContext = {
        tell: (share) => onProgress?.(share),
        progress: async (share) => onProgress?.(share),
      };
      // as in a worker: what is asked for later changes nothing of what was given
      return handler(input as never, context);
    },
    stop() {},
  };
}
