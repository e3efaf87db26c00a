import type { CrossoverSetting, SubLimits } from '@pebble-hall/core/alignment';
import {
  DesignDesk,
  type ChannelRequest,
  type CrossoverRequest,
  type ExactRequest,
  type HeardOutput,
  type TraceRef,
  type TraceSource,
} from '@pebble-hall/core/jobs';
import type { Section } from '@pebble-hall/core/path';
import type {
  BassFeed,
  BuildOptions,
  OutputCorrection,
  OutputSettings,
  SubSetting,
} from '@pebble-hall/core/processing';
import { serveJobs, type JobContext } from './serveJobs';
import { storedImpulse } from './storedArrays';

const desk = new DesignDesk(storedImpulse);

const jobs = {
  levels: (sources: TraceSource[]) => desk.levels(sources),
  response: (source: TraceRef) => desk.response(source),
  heard: (outputs: HeardOutput[]) => desk.heard(outputs),
  movement: (i: { sources: TraceSource[]; band: { from: number; to: number } }) =>
    desk.movement(i.sources, i.band),
  design: (requests: ChannelRequest[], { progress }: JobContext) => desk.design(requests, progress),
  exact: (request: ExactRequest) => desk.exact(request),
  build: (i: { base: OutputSettings[]; channels: OutputCorrection[]; options: BuildOptions }) =>
    desk.build(i.base, i.channels, i.options),
  beforeAfter: (i: { source: TraceSource; fir: Float32Array | null; sections: Section[]; rate: number }) =>
    desk.beforeAfter(i.source, i.fir, i.sections, i.rate),
  atHome: (i: { request: ChannelRequest; source: TraceSource; filterDb: Float64Array }) =>
    desk.atHome(i.request, i.source, i.filterDb),
  evenSeats: (i: { traces: TraceSource[][]; limits: SubLimits; rate: number }) =>
    desk.evenSeats(i.traces, i.limits, i.rate),
  deviations: (i: { traces: TraceSource[][]; settings: SubSetting[][]; rate: number }) =>
    desk.deviations(i.traces, i.settings, i.rate),
  crossover: (i: { request: CrossoverRequest; setting: CrossoverSetting; low: BassFeed | null }) =>
    desk.crossover(i.request, i.setting, i.low),
  alignCrossover: (i: {
    asked: { request: CrossoverRequest; setting: CrossoverSetting }[];
    offered: Pick<CrossoverSetting, 'highPass' | 'lowPass'>[] | null;
    mostDelayS: number;
  }) => desk.alignCrossover(i.asked, i.offered, i.mostDelayS),
  /** This program, by the name that the build gave it: what another one made is not ours. Null where it has none. */
  madeBy: (_: null): string | null => (import.meta.env.PROD ? self.location.pathname : null),
};
export type DesignJobs = typeof jobs;
serveJobs(jobs);
