import QuickLRU from 'quick-lru';
import { exponentialSweep, type Sweep, type SweepRequest } from '../signal/index.js';
import { analyseSweep, type AnalysedSweep, type AnalysisStep, type SweepRecording } from './analyseSweep.js';
import { findTimingClick } from './timingClick.js';

/** What surrounds a recording: a click in a head that comes before it, and sound that was lost. */
export interface TakeSurroundings {
  /** `travelS`: of the click's sound to the microphone */
  click: { headFrames: number; atFrame: number; travelS: number } | null;
  dropouts: number;
}

/**
 * One take as the rig brought it, analysed: time by the click where there is one, and a verdict that counts what was lost.
 * @param onStep told ahead of each step
 */
export function analyseTake(
  whole: SweepRecording,
  request: SweepRequest,
  { click, dropouts }: TakeSurroundings,
  onStep?: (step: AnalysisStep) => void,
): AnalysedSweep {
  let recording = whole;
  let isClickMissing = false;
  if (click) {
    const at = findTimingClick(whole.microphone.subarray(0, click.headFrames), whole.rate);
    const latency = at === null ? null : at - click.atFrame - click.travelS * whole.rate;
    isClickMissing = latency === null;
    recording = { ...whole, microphone: whole.microphone.subarray(click.headFrames), latency };
  }
  const analysed = analyseSweep(recording, sweepOf(request), onStep);
  const { verdict } = analysed;
  const reasons = isClickMissing
    ? verdict.reasons.map((r) => (r.kind === 'no loopback' ? ({ kind: 'no click' } as const) : r))
    : verdict.reasons;
  if (dropouts === 0) return { ...analysed, verdict: { ...verdict, reasons } };
  return {
    ...analysed,
    verdict: { ...verdict, state: 'failed', reasons: [{ kind: 'dropouts', count: dropouts }, ...reasons] },
  };
}

/** A round uses one sweep a hundred times; what undoes it belongs to it, so it is kept as well. */
const sweeps = new QuickLRU<string, Sweep>({ maxSize: 2 });

function sweepOf(request: SweepRequest): Sweep {
  const name = JSON.stringify(request);
  const known = sweeps.get(name) ?? exponentialSweep(request);
  sweeps.set(name, known);
  return known;
}
