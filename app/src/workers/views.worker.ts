import type { SpeechAndNoise } from '@pebble-hall/core/acoustics';
import { ViewDesk, type TraceRef, type ViewedRef } from '@pebble-hall/core/jobs';
import { curveOfImpulse, workOut, type LongWork } from '@pebble-hall/core/traces';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import type { DecayMapRequest } from '@pebble-hall/core/views';
import { handOver, serveJobs } from './serveJobs';
import { storedImpulse } from './storedArrays';

const desk = new ViewDesk(storedImpulse);

const jobs = {
  levels: (i: { refs: TraceRef[]; corrected: boolean }) => desk.levels(i.refs, i.corrected),
  /** a stored impulse response as a curve of the library */
  libraryCurve: async (i: {
    arrayId: string;
    calibration: { frequency: number[]; levelDb: number[] } | null;
  }) => {
    const curve = curveOfImpulse(await storedImpulse(i.arrayId), i.calibration);
    return handOver(curve, [curve.re, curve.im, curve.coherence, curve.frequency]);
  },
  curveOf: (i: {
    impulse: ImpulseResponse;
    calibration: { frequency: number[]; levelDb: number[] } | null;
  }) => {
    const curve = curveOfImpulse(i.impulse, i.calibration);
    return handOver(curve, [curve.re, curve.im, curve.coherence, curve.frequency]);
  },
  libraryWork: (work: LongWork) => workOut(work),
  delays: (ref: TraceRef) => desk.delays(ref),
  time: async (i: { ref: TraceRef; fromMs: number; toMs: number }) => {
    const curves = await desk.time(i.ref, i);
    return handOver(curves, [curves.impulse, curves.step, curves.energyDb]);
  },
  windowed: (i: {
    ref: TraceRef;
    window: { leftS: number; rightS: number } | { cycles: number };
    corrected: boolean;
  }) => desk.windowed(i.ref, i.window, i.corrected),
  decay: async (i: {
    ref: TraceRef;
    request: Omit<DecayMapRequest, 'fromS' | 'toS'> & { lengthS: number };
  }) => {
    const map = await desk.decay(i.ref, i.request);
    return handOver(map, [map.levelDb]);
  },
  resonances: (i: { refs: TraceRef[]; band: { fromHz: number; toHz: number } }) =>
    desk.resonances(i.refs, i.band),
  reflections: (i: { ref: TraceRef; speedOfSound: number }) => desk.reflections(i.ref, i.speedOfSound),
  figures: (refs: ViewedRef[]) => desk.figures(refs),
  speech: (i: { refs: TraceRef[]; levels: SpeechAndNoise | null }) => desk.speech(i.refs, i.levels),
};
export type ViewJobs = typeof jobs;
serveJobs(jobs);
