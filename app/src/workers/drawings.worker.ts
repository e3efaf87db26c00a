import { examineModel, readModel, type Taken } from '@pebble-hall/core/drawings';
import { handOver, serveJobs } from './serveJobs';
import { storedFile } from './storedArrays';

const examine = async (file: { name: string; bytes: Uint8Array }, taken: Taken) => {
  const seen = examineModel(await readModel(file.name, file.bytes), taken);
  return handOver(seen, [seen.ends, seen.openEnds, seen.triangles]);
};

const jobs = {
  examine: ({ file, taken }: { file: { name: string; bytes: Uint8Array }; taken: Taken }) =>
    examine(file, taken),
  stored: async ({ fileId, taken }: { fileId: string; taken: Taken }) =>
    examine(await storedFile(fileId, 'The drawing under the plan'), taken),
};
export type DrawingJobs = typeof jobs;
serveJobs(jobs);
