import type { ColumnMeaning, CurveView, Formula } from '../traces/index.js';
import type { Smoothing } from './libraryViews.js';
import type { LiveOrigin } from './live.js';
import type { TogetherOrigin } from './togetherOrigin.js';

/** Of a trace that came in a file. */
export interface FileOrigin {
  by: 'file';
  fileName: string;
  /** what its columns hold, in their order; empty of a sound file */
  columns: ColumnMeaning[];
  hasPhase: boolean;
  /** what the file said of itself, and what was assumed */
  notes: string[];
}

/** Of a trace that follows others. */
export interface ComputedOrigin {
  by: 'computed';
  formula: Formula;
}

export const LINE_STYLES = ['solid', 'dashed', 'dotted'] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

/** How a kept trace is looked at: nothing of it touches its samples. */
export interface TraceView extends CurveView {
  isShown: boolean;
  /** a name of a trace's colour; null for the next one that is free */
  colour: string | null;
  line: LineStyle;
  /** a calibration file of a microphone that it is corrected by, on top of what it was measured with; null for none */
  calibrationId: string | null;
  /** octave fraction that it is smoothed over, whatever the others are; null for as all of them */
  smoothing: Smoothing | null;
}

/** How a sweep of the walk is looked at in the library; whether it is shown is no part of the project. */
export type SweepLook = Omit<TraceView, 'isShown'>;

/** A trace of the library: a transfer function with its coherence, or a spectrum. */
export interface KeptTrace {
  id: string;
  kind: 'transfer function' | 'spectrum';
  name: string;
  keptAt: number;
  note: string;
  /** empty for none */
  folder: string;
  tags: string[];
  /**
   * frequency, re, im and coherence one after the other, all as long; of a spectrum frequency and level, dB re full scale; null
   * where it is computed from others
   */
  arrayId: string | null;
  origin: LiveOrigin | FileOrigin | ComputedOrigin | TogetherOrigin;
  view: TraceView;
}

export const plainSweepLook = (): SweepLook => ({
  gainDb: 0,
  delayS: 0,
  inverted: false,
  shapes: [],
  window: null,
  calibrationId: null,
  colour: null,
  line: 'solid',
  smoothing: null,
});
export const plainView = (): TraceView => ({ ...plainSweepLook(), isShown: true });

/** Ids of the traces that a trace rests on, directly. */
export const restsOn = ({ origin }: Pick<KeptTrace, 'origin'>): string[] =>
  origin.by === 'computed' ? origin.formula.of : [];

const maps = new WeakMap<readonly KeptTrace[], ReadonlyMap<string, KeptTrace>>();

/** Kept traces by their ids: of thousands, one is found at once. */
export function keptById(kept: readonly KeptTrace[]): ReadonlyMap<string, KeptTrace> {
  const known = maps.get(kept) ?? new Map(kept.map((k) => [k.id, k]));
  maps.set(kept, known);
  return known;
}

/** Whether a trace rests on itself, over however many others; then it says nothing. */
export function isCircular(kept: readonly KeptTrace[], id: string): boolean {
  const byId = keptById(kept);
  const seen = new Set<string>();
  const open = [...(byId.has(id) ? restsOn(byId.get(id)!) : [])];
  while (open.length > 0) {
    const next = open.pop()!;
    if (next === id) return true;
    const trace = byId.get(next);
    if (seen.has(next) || !trace) continue;
    seen.add(next);
    open.push(...restsOn(trace));
  }
  return false;
}
