import {
  findJoint,
  playedAs,
  suggestAlignments,
  suggestCrossovers,
  type CrossoverRequest,
  type SourceSetting,
  type JointPoint,
  type SuggestRequest,
} from '@pebble-hall/core/alignment';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  suggest: (request: SuggestRequest) => suggestAlignments(request),
  crossovers: (request: CrossoverRequest) => suggestCrossovers(request),
  played: ({ samples, rate, as }: { samples: Float32Array; rate: number; as: SourceSetting }) => {
    const played = playedAs(samples, rate, as);
    return handOver(played, [played]);
  },
  joint: ({ points, mostDelayS }: { points: JointPoint[]; mostDelayS: number }) =>
    findJoint(points, mostDelayS),
};
export type AlignJobs = typeof jobs;
serveJobs(jobs);
