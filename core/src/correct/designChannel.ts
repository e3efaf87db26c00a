import { usableBand } from '../measure/index.js';
import { dbOfPower, smoothLevels } from '../signal/index.js';
import { averagePower, averageSpots, type SpotAverage } from './averageSpots.js';
import { designMagnitude, smoothForDesign } from './designMagnitude.js';
import { leftAlone, type LeftAlone } from './leftAlone.js';
import { minimumPhaseFir } from './minimumPhaseFir.js';
import { placeTarget } from './placeTarget.js';
import { firLevelDb, largestGainDb, predictPower } from './predict.js';
import { meanInSpan, rmsDistance, type Span } from './span.js';
import { targetCurve, type TargetHandle } from './targetCurve.js';

/** What a channel shall become. */
export interface ChannelGoal {
  id: string;
  handles: TargetHandle[];
  strength: number;
  maxBoostDb: number;
  maxCutDb: number;
  /** null: found from the average */
  span: Span | null;
  /** dB added to the shape of the handles; null: placed to meet the average */
  targetOffsetDb: number | null;
}

/** What a channel is corrected from, and towards what; traces are named by a key. */
export interface ChannelRequest extends ChannelGoal {
  /** trace keys of the spots that are averaged, and of those left out, which only judge */
  spots: string[];
  /** one per spot that is averaged; all alike when absent */
  weights?: number[];
  leftOut: string[];
}

/** One channel, designed and predicted; all curves on the 1/48-octave grid, dB. */
export interface ChannelDesign {
  id: string;
  span: Span;
  found: { averageDb: Float64Array; lowDb: Float64Array; highDb: Float64Array };
  predicted: { averageDb: Float64Array; lowDb: Float64Array; highDb: Float64Array };
  targetDb: Float64Array;
  /** added to the shape of the handles to meet the average */
  targetOffsetDb: number;
  gainDb: Float64Array;
  leftAlone: LeftAlone[];
  /** RMS distance to the target over the span, 1/6 octave, levels matched; before and after */
  distance: { before: number; after: number };
  /** the same on the spots that took no part in the design; null without any */
  distanceLeftOut: { before: number; after: number } | null;
}

export interface ExactChannel {
  id: string;
  fir: Float32Array;
  largestGainDb: number;
  /** what the filter really does, on the grid, dB */
  firDb: Float64Array;
}

/** What a channel's spots are before anything is done: does not change while a hand moves the target. */
export interface FoundChannel {
  powers: Float64Array[];
  weights: number[];
  leftOut: Float64Array[];
  average: SpotAverage;
  /** the span that it has by itself */
  ownSpan: Span;
  /** the average as the design inverts it, and smoothed by 1/6 octave */
  forDesignDb: Float64Array;
  sixthDb: Float64Array;
  /** the spots left out, smoothed by 1/6 octave */
  leftOutSixthDb: Float64Array[];
}

/** @param powers of the spots that are averaged, on the grid; at least one. @param leftOut of those that only judge */
export function foundChannel(
  grid: Float64Array,
  powers: Float64Array[],
  leftOut: Float64Array[] = [],
  weights: number[] = powers.map(() => 1),
): FoundChannel {
  const average = averageSpots(grid, powers, weights);
  const { averageDb } = average;
  return {
    powers,
    weights,
    leftOut,
    average,
    ownSpan: ownSpan(grid, averageDb),
    forDesignDb: smoothForDesign(grid, averageDb),
    sixthDb: smoothLevels(grid, averageDb, 6),
    leftOutSixthDb: leftOut.map((p) => smoothLevels(grid, p.map(dbOfPower), 6)),
  };
}

/** Designs one channel on the grid: quick enough to follow a hand. */
export function designChannel(
  grid: Float64Array,
  request: ChannelGoal,
  {
    powers,
    weights,
    leftOut: out,
    average,
    ownSpan: own,
    forDesignDb,
    sixthDb,
    leftOutSixthDb,
  }: FoundChannel,
): ChannelDesign {
  const span = request.span ?? own;
  const shape = targetCurve(request.handles, grid);
  const targetOffsetDb = request.targetOffsetDb ?? placeTarget(grid, average.averageDb, shape, span, sixthDb);
  const targetDb = shape.map((v) => v + targetOffsetDb);
  const limits = {
    span,
    strength: request.strength,
    maxBoostDb: request.maxBoostDb,
    maxCutDb: request.maxCutDb,
  };
  const design = designMagnitude(grid, average.averageDb, average.spreadDb, targetDb, limits, forDesignDb);
  const after = (list: Float64Array[]) => list.map((p) => predictPower(p, design.gainDb));
  const { averageDb, lowDb, highDb } = averagePower(grid, after(powers), weights);
  return {
    id: request.id,
    span,
    found: { averageDb: average.averageDb, lowDb: average.lowDb, highDb: average.highDb },
    predicted: { averageDb, lowDb, highDb },
    targetDb,
    targetOffsetDb,
    gainDb: design.gainDb,
    leftAlone: leftAlone(grid, average, targetDb, design, limits, sixthDb),
    distance: {
      before: distanceOfShape(grid, sixthDb, targetDb, span),
      after: shapeDistance(grid, averageDb, targetDb, span),
    },
    distanceLeftOut:
      out.length === 0
        ? null
        : {
            before:
              leftOutSixthDb.reduce((sum, s) => sum + distanceOfShape(grid, s, targetDb, span), 0) /
              out.length,
            after: meanDistance(grid, after(out), targetDb, span),
          },
  };
}

/** A band wholly below this is a subwoofer's; there the soft end takes up so much of an octave that it would spare the lowest resonance. */
const DEEP_HZ = 300;
const BELOW_BAND_HZ = 10;

/** The span that a channel has by itself: the band it plays in; of a subwoofer, the soft end lies below its band. */
export function ownSpan(grid: Float64Array, averageDb: Float64Array): Span {
  const band = usableBand(grid, averageDb) ?? { from: 100, to: 10000 };
  return band.to < DEEP_HZ ? { from: Math.max(grid[0]!, band.from - BELOW_BAND_HZ), to: band.to } : band;
}

/** The filter itself; takes tens of milliseconds. */
export function exactChannel(
  grid: Float64Array,
  design: ChannelDesign,
  taps: number,
  rate: number,
): ExactChannel {
  const fir = minimumPhaseFir(grid, design.gainDb, taps, rate);
  return { id: design.id, fir, largestGainDb: largestGainDb(fir), firDb: firLevelDb(fir, rate, grid) };
}

/** RMS distance to the shape of a target: 1/6 octave, the mean difference over the span taken off, as it is only level. */
export function shapeDistance(
  grid: Float64Array,
  levels: Float64Array,
  targetDb: Float64Array,
  span: Span,
): number {
  return distanceOfShape(grid, smoothLevels(grid, levels, 6), targetDb, span);
}

function distanceOfShape(
  grid: Float64Array,
  smoothDb: Float64Array,
  targetDb: Float64Array,
  span: Span,
): number {
  const off = smoothDb.map((v, i) => v - targetDb[i]!);
  const mean = meanInSpan(grid, off, span);
  return rmsDistance(
    grid,
    off.map((v) => v - mean),
    new Float64Array(grid.length),
    span,
  );
}

const meanDistance = (grid: Float64Array, powers: Float64Array[], targetDb: Float64Array, span: Span) =>
  powers.reduce((sum, p) => sum + shapeDistance(grid, p.map(dbOfPower), targetDb, span), 0) / powers.length;
