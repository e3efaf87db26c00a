import {
  analyseSweep,
  noiseSpectrum,
  type AnalysedSweep,
  type SweepRecording,
} from '@pebble-hall/core/measure';
import { exponentialSweep, type SweepRequest } from '@pebble-hall/core/signal';
import { expose, transfer } from 'comlink';

const api = {
  analyse: (recording: SweepRecording, sweep: SweepRequest): AnalysedSweep => {
    const analysed = analyseSweep(recording, exponentialSweep(sweep));
    return transfer(analysed, [analysed.impulse.samples.buffer]);
  },
  noise: (silence: Float32Array, rate: number) => noiseSpectrum(silence, rate),
};
export type AnalysisApi = typeof api;
expose(api);
