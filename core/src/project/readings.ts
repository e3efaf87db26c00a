import type { FigureTolerance, PublishedFigures, WantedShape } from '../shapes/index.js';

/** What shapes are looked for in a trace of the library, and what is published of them; what is found is worked out from the trace. */
export interface Reading {
  id: string;
  name: string;
  /** of the trace that is read */
  traceId: string;
  wanted: WantedShape[];
  /** as many as are wanted */
  published: PublishedFigures[];
  tolerance: FigureTolerance;
  /** of the curve, Hz */
  from: number;
  to: number;
  levelIsFree: boolean;
  /** of the digital device that makes the shapes, Hz; null for circuits */
  rate: number | null;
  /** readings of one knob's extremes share a name, and are drawn as one; empty for none */
  family: string;
}

export const nothingPublished = (): PublishedFigures => ({ hz: null, gainDb: null, q: null, order: null });

export const newReading = (id: string, name: string, traceId: string): Reading => ({
  id,
  name,
  traceId,
  wanted: [{ kind: 'peaking' }],
  published: [nothingPublished()],
  tolerance: { hzPercent: 10, gainDb: 1, qPercent: 15 },
  from: 20,
  to: 20_000,
  levelIsFree: true,
  rate: null,
  family: '',
});
