import {
  candidateLevels,
  listeningMaterial,
  renderCandidates,
  renderResponses,
  type CandidateOutput,
  type NoiseBand,
  type RenderRequest,
} from '@pebble-hall/core/auralisation';
import { headphoneCorrection, type HeadphoneGoal } from '@pebble-hall/core/correct';
import { responseLevels } from '@pebble-hall/core/measure';
import type { ProcessorLimits } from '@pebble-hall/core/processing';
import { handOver, serveJobs } from './serveJobs';

const jobs = {
  material: (kind: 'strings' | 'noise' | NoiseBand) => listeningMaterial(kind),
  responseLevels: (i: { samples: Float32Array; rate: number }) => responseLevels(i.samples, i.rate),
  headphones: (i: {
    onEar: { frequency: number[]; levelDb: number[] };
    goal: HeadphoneGoal;
    processor: ProcessorLimits;
  }) => headphoneCorrection(i.onEar, i.goal, i.processor),
  levels: (outputs: CandidateOutput[]) => candidateLevels(outputs),
  renderResponses: (request: Parameters<typeof renderResponses>[0]) => {
    const rendered = renderResponses(request);
    return handOver(rendered, rendered.sounds.flat());
  },
  render: (request: RenderRequest) => {
    const rendered = renderCandidates(request);
    return handOver(rendered, rendered.sounds.flat());
  },
};
export type ListenJobs = typeof jobs;
serveJobs(jobs);
