import { smoothLevels } from '../signal/index.js';
import { placeTarget } from './placeTarget.js';
import { meanInSpan, type Span } from './span.js';

/** An edge of a span at which the loudspeaker's band goes on. */
export interface SpanEdge {
  side: 'low' | 'high';
  /** Hz */
  at: number;
  /** by how much what is found over the octave beyond lies above the target, dB */
  stepDb: number;
}

/** A band goes on where it reaches further than the edge by this, octaves. */
const GOES_ON_OCTAVES = 1 / 3;

/**
 * The edges of a span at which the band goes on, and how far the octave beyond lies from a target: nothing is changed there,
 * so where the target does not meet it, the result has a step.
 * @param smoothDb the average as found, 1/6 octave
 * @param band that the loudspeaker plays
 */
export function spanEdges(
  frequency: Float64Array,
  smoothDb: Float64Array,
  targetDb: Float64Array,
  span: Span,
  band: Span,
): SpanEdge[] {
  const off = smoothDb.map((level, i) => level - targetDb[i]!);
  const edges: SpanEdge[] = [];
  if (Math.log2(span.from / band.from) > GOES_ON_OCTAVES)
    edges.push({
      side: 'low',
      at: span.from,
      stepDb: meanInSpan(frequency, off, { from: Math.max(band.from, span.from / 2), to: span.from }),
    });
  if (Math.log2(band.to / span.to) > GOES_ON_OCTAVES)
    edges.push({
      side: 'high',
      at: span.to,
      stepDb: meanInSpan(frequency, off, { from: span.to, to: Math.min(band.to, 2 * span.to) }),
    });
  return edges.filter((edge) => Number.isFinite(edge.stepDb));
}

/**
 * The level of a target's shape over a span: where the band goes on beyond an edge, it meets the octave beyond, so that no step is
 * left (between two such edges, half of each); otherwise as `placeTarget` finds it.
 * @param band that the loudspeaker plays
 * @param smoothDb the average smoothed by 1/6 octave, where it is known already
 * @returns dB to add to the shape
 */
export function placeOverSpan(
  frequency: Float64Array,
  averageDb: Float64Array,
  shapeDb: Float64Array,
  span: Span,
  band: Span,
  smoothDb: Float64Array = smoothLevels(frequency, averageDb, 6),
): number {
  const edges = spanEdges(frequency, smoothDb, shapeDb, span, band);
  return edges.length > 0
    ? edges.reduce((sum, { stepDb }) => sum + stepDb, 0) / edges.length
    : placeTarget(frequency, averageDb, shapeDb, span, smoothDb);
}
