import { describeNoise, travelDifference } from '@pebble-hall/core/commissioning';
import {
  analyseTake,
  measureRoundTrip,
  noiseSpectrum,
  type SweepRecording,
  type TakeSurroundings,
} from '@pebble-hall/core/measure';
import { joinFloorAndEar, type FloorAndEarRequest } from '@pebble-hall/core/spots';
import type { ImpulseResponse, SweepRequest } from '@pebble-hall/core/signal';
import { handOver, serveJobs, type JobContext } from './serveJobs';

const STEPS = ['align', 'noise', 'disturbances', 'verdict'];

const jobs = {
  analyse: (
    take: { recording: SweepRecording; request: SweepRequest; surroundings: TakeSurroundings },
    { tell }: JobContext,
  ) => {
    const analysed = analyseTake(take.recording, take.request, take.surroundings, (step) =>
      tell(STEPS.indexOf(step) / STEPS.length),
    );
    return handOver(analysed, [analysed.impulse.samples]);
  },
  roundTrip: (take: { recording: Float32Array; silenceS: number; request: SweepRequest }) =>
    measureRoundTrip(take.recording, take.silenceS, take.request),
  joinFloorAndEar: (request: FloorAndEarRequest) => joinFloorAndEar(request),
  travel: (heard: { near: ImpulseResponse; far: ImpulseResponse; band: { from: number; to: number } }) =>
    travelDifference(heard.near, heard.far, heard.band),
  noise: ({ silence, rate }: { silence: Float32Array; rate: number }) => ({
    bands: noiseSpectrum(silence, rate),
    traits: describeNoise(silence, rate),
  }),
};
export type AnalysisJobs = typeof jobs;
serveJobs(jobs);
