import { levelMap, type LevelMapRequest } from '@pebble-hall/core/coverage';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  level: (request: LevelMapRequest) => {
    const levels = levelMap(request);
    return handOver(levels, [levels]);
  },
};
export type CoverageJobs = typeof jobs;
serveJobs(jobs);
