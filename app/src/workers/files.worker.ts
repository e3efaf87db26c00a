import { readAes69Head, readAes69Responses, readNumbers } from '@pebble-hall/core/formats';
import { readProjectFile } from '@pebble-hall/core/project';
import { packedHead } from '@pebble-hall/core/runs';
import { handOver, serveJobs } from './serveJobs';

// files of others are read apart from the page, which stays as it is whatever is in them
const jobs = {
  project(bytes: Uint8Array) {
    const read = readProjectFile(bytes);
    return handOver(read, [
      ...read.arrays.map((a) => a.samples),
      ...read.enclosed.map((f) => f.bytes),
      ...read.rays.map((r) => r.data),
    ]);
  },
  numbers: (text: string) => readNumbers(text),
  set: (bytes: Uint8Array) => readAes69Responses(bytes),
  /** a head, packed as the room model hears with it */
  head: async (bytes: Uint8Array) => {
    const set = await readAes69Head(bytes);
    const packed = packedHead(set);
    return handOver({ title: set.title, directions: set.directions.length, packed }, [packed]);
  },
};
export type FileJobs = typeof jobs;
serveJobs(jobs);
