import {
  findJoint,
  suggestAlignments,
  suggestCrossovers,
  type CrossoverRequest,
  type JointPoint,
  type SuggestRequest,
} from '@pebble-hall/core/alignment';
import { serveJobs } from './serveJobs';

const jobs = {
  suggest: (request: SuggestRequest) => suggestAlignments(request),
  crossovers: (request: CrossoverRequest) => suggestCrossovers(request),
  joint: ({ points, mostDelayS }: { points: JointPoint[]; mostDelayS: number }) =>
    findJoint(points, mostDelayS),
};
export type AlignJobs = typeof jobs;
serveJobs(jobs);
