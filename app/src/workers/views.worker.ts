import type { SpeechAndNoise } from '@pebble-hall/core/acoustics';
import { impulseTogether, laterBy, type SourceSetting } from '@pebble-hall/core/alignment';
import { ViewDesk, type TraceRef, type ViewedRef } from '@pebble-hall/core/jobs';
import { curveOfImpulse, peakOf, workOut, type LongWork } from '@pebble-hall/core/traces';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import type { DecayMapRequest } from '@pebble-hall/core/views';
import { handOver, serveJobs } from './serveJobs';
import { storedImpulse } from './storedArrays';

const desk = new ViewDesk(storedImpulse);

interface StoredPart {
  arrayId: string;
  as: SourceSetting;
}
type Reading = { frequency: number[]; levelDb: number[] };

const storedTogether = async (parts: StoredPart[]): Promise<ImpulseResponse> =>
  impulseTogether(
    await Promise.all(parts.map(async ({ arrayId, as }) => ({ impulse: await storedImpulse(arrayId), as }))),
  );

const jobs = {
  levels: (i: { refs: TraceRef[]; corrected: boolean }) => desk.levels(i.refs, i.corrected),
  /** a stored impulse response as a curve of the library */
  libraryCurve: async (i: { arrayId: string; calibration: Reading | null }) => {
    const curve = curveOfImpulse(await storedImpulse(i.arrayId), i.calibration);
    return handOver(curve, [curve.re, curve.im, curve.coherence, curve.frequency]);
  },
  /**
   * A sum as it was measured, about the peak of what was predicted: when all of them play, a loopback tells no time of its own
   */
  measuredTogether: async (i: {
    impulse: ImpulseResponse;
    parts: StoredPart[] | null;
    calibration: Reading | null;
  }) => {
    const predicted = i.parts && (await storedTogether(i.parts));
    const about = predicted ? peakOf(predicted) + laterBy(predicted, i.impulse) : undefined;
    const curve = curveOfImpulse(i.impulse, i.calibration, about);
    return handOver(curve, [curve.re, curve.im, curve.coherence, curve.frequency]);
  },
  /** stored impulse responses as they add up when each is set, about the peak of how they were set before */
  together: async (i: { parts: StoredPart[]; before: StoredPart[]; calibration: Reading | null }) => {
    const about = peakOf(await storedTogether(i.before));
    const curve = curveOfImpulse(await storedTogether(i.parts), i.calibration, about);
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
