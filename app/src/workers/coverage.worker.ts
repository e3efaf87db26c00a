import {
  levelMap,
  radiationView,
  type LevelMapRequest,
  type RadiatingModel,
} from '@pebble-hall/core/coverage';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  level: (request: LevelMapRequest) => {
    const levels = levelMap(request);
    return handOver(levels, [levels]);
  },
  radiation: ({ model, speed }: { model: RadiatingModel; speed: number }) => radiationView(model, speed),
};
export type CoverageJobs = typeof jobs;
serveJobs(jobs);
