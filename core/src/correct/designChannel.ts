import { usableBand } from '../measure/index.js';
import { sectionsLevelDb, type Section } from '../path/index.js';
import { dbOfPower, smoothLevels } from '../signal/index.js';
import { averagePower, averageSpots, type SpotAverage } from './averageSpots.js';
import {
  designMagnitude,
  roomAt,
  smoothForDesign,
  type CorrectionLimits,
  type StrengthPoint,
} from './designMagnitude.js';
import { sharedPhase, nonMinimumPhaseShare } from './excessPhase.js';
import type { SharedPhase } from './correctionFir.js';
import { leftAlone, type LeftAlone } from './leftAlone.js';
import { predictPower } from './predict.js';
import { extendedSpan, findRollOffs, keptEnds, rollOffDb, type RollOffs } from './rollOff.js';
import { meanInSpan, rmsDistance, type Span } from './span.js';
import { placeOverSpan, spanEdges, type SpanEdge } from './spanEdges.js';
import { targetShape, type Target } from './targetShape.js';

/** What a channel shall become. */
export interface ChannelGoal {
  id: string;
  target: Target;
  strength: number;
  /** on top of strength, against frequency; none for everywhere alike */
  strengthPoints: StrengthPoint[];
  maxBoostDb: number;
  maxCutDb: number;
  /** sections that outputs have beside this correction, each output's own: the limits hold for both together */
  besides?: Section[][];
  /** null: found from the average */
  span: Span | null;
  /** dB added to the shape of the handles; null: placed to meet the average */
  targetOffsetDb: number | null;
}

/** What it takes to push the ends of a band beyond the loudspeaker's own. */
export interface ExtensionPrice {
  /** gain at the ends, beyond what it would be, at most; dB */
  moreDb: number;
  /** by how much the channel's largest gain grows: what the headroom pays, dB */
  costDb: number;
}

/** One channel, designed and predicted; all curves on the 1/48-octave grid, dB. */
export interface ChannelDesign {
  id: string;
  span: Span;
  found: { averageDb: Float64Array; lowDb: Float64Array; highDb: Float64Array };
  predicted: { averageDb: Float64Array; lowDb: Float64Array; highDb: Float64Array };
  /** with the roll-offs that are kept */
  targetDb: Float64Array;
  /** where the span ends within the loudspeaker's band, and the step that is left there */
  edges: SpanEdge[];
  rollOffs: RollOffs;
  /** those that the target follows */
  ends: RollOffs;
  /** added to the shape of the handles to meet the average */
  targetOffsetDb: number;
  extension: ExtensionPrice | null;
  gainDb: Float64Array;
  /** what may be boosted and cut at each frequency, with what else acts, dB, both at least 0 */
  room: { boostDb: Float64Array; cutDb: Float64Array };
  /** the same at full strength, and what would lead exactly to the target */
  fullDb: Float64Array;
  wantedDb: Float64Array;
  strengthAt: Float64Array;
  /** standard deviation over the spots, dB, and share of them that is not of minimum phase */
  standardDeviationDb: Float64Array;
  nonMinimumPhase: Float64Array;
  leftAlone: LeftAlone[];
  /** RMS distance to the target over the span, 1/6 octave, levels matched; before and after */
  distance: { before: number; after: number };
  /** the same on the spots that took no part in the design; null without any */
  distanceLeftOut: { before: number; after: number } | null;
}

/** What a channel's spots are before anything is done: does not change while a hand moves the target. */
export interface MeasuredChannel {
  powers: Float64Array[];
  weights: number[];
  leftOut: Float64Array[];
  average: SpotAverage;
  /** share of the spots that are not of minimum phase, and the excess phase that they share */
  nonMinimumPhase: Float64Array;
  shared: SharedPhase | null;
  rollOffs: RollOffs;
  /** the span that it has by itself */
  ownSpan: Span;
  /** the average as the design inverts it, and smoothed by 1/6 octave */
  forDesignDb: Float64Array;
  sixthDb: Float64Array;
  /** the spots left out, smoothed by 1/6 octave */
  leftOutSixthDb: Float64Array[];
}

/**
 * @param powers of the spots that are averaged, on the grid; at least one
 * @param leftOut of those that only judge
 * @param excess phases of those that are averaged (`excessPhase`); none where they are not known
 */
export function measuredChannel(
  grid: Float64Array,
  powers: Float64Array[],
  leftOut: Float64Array[] = [],
  weights: number[] = powers.map(() => 1),
  excess: Float64Array[] = [],
): MeasuredChannel {
  const average = averageSpots(grid, powers, weights);
  const { averageDb } = average;
  return {
    nonMinimumPhase: nonMinimumPhaseShare(grid, excess, weights),
    shared: excess.length > 0 ? sharedPhase(grid, excess, weights) : null,
    rollOffs: findRollOffs(grid, averageDb),
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
    nonMinimumPhase,
    rollOffs,
    ownSpan: own,
    forDesignDb,
    sixthDb,
    leftOutSixthDb,
  }: MeasuredChannel,
): ChannelDesign {
  const { strength, strengthPoints, maxBoostDb, maxCutDb } = request;
  const besides = besidesOf(request.besides ?? [], grid);
  const traits = { standardDeviationDb: average.standardDeviationDb, nonMinimumPhase };
  const towards = (target: Target) => {
    const span =
      request.span ?? withinGrid(grid, target.keepsRollOff ? extendedSpan(own, rollOffs, target) : own);
    const ends = keptEnds(rollOffs, target);
    const fall = rollOffDb(ends, grid);
    const shape = targetShape(target, grid).map((v, i) => v + fall[i]!);
    const targetOffsetDb =
      request.targetOffsetDb ?? placeOverSpan(grid, average.averageDb, shape, span, own, sixthDb);
    const targetDb = shape.map((v) => v + targetOffsetDb);
    const limits = { span, strength, strengthPoints, maxBoostDb, maxCutDb, besides };
    const design = designMagnitude(grid, average.averageDb, traits, targetDb, limits, forDesignDb);
    return { span, ends, targetOffsetDb, targetDb, limits, design };
  };
  const { span, ends, targetOffsetDb, targetDb, limits, design } = towards(request.target);
  const { keepsRollOff, lowExtensionHz, highExtensionHz } = request.target;
  const kept =
    !keepsRollOff || (lowExtensionHz === null && highExtensionHz === null)
      ? null
      : towards({ ...request.target, lowExtensionHz: null, highExtensionHz: null }).design.gainDb;
  const after = (list: Float64Array[]) => list.map((p) => predictPower(p, design.gainDb));
  const { averageDb, lowDb, highDb } = averagePower(grid, after(powers), weights);
  return {
    id: request.id,
    span,
    found: { averageDb: average.averageDb, lowDb: average.lowDb, highDb: average.highDb },
    predicted: { averageDb, lowDb, highDb },
    targetDb,
    targetOffsetDb,
    edges: spanEdges(grid, sixthDb, targetDb, span, own),
    rollOffs,
    ends,
    extension: kept && {
      moreDb: largest(design.gainDb.map((g, i) => g - kept[i]!)),
      costDb: Math.max(0, largest(design.gainDb) - largest(kept)),
    },
    room: {
      boostDb: grid.map((_, i) => roomAt(limits, i).boostDb),
      cutDb: grid.map((_, i) => roomAt(limits, i).cutDb),
    },
    ...design,
    ...traits,
    leftAlone: leftAlone(grid, average.averageDb, traits, targetDb, design, limits, sixthDb),
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

/** Of sections for the lows, the rate at which they run makes no difference. */
const ANY_RATE = 48_000;

function besidesOf(outputs: Section[][], grid: Float64Array): CorrectionLimits['besides'] {
  if (outputs.every((sections) => sections.length === 0)) return null;
  const levels = outputs.map((sections) => sectionsLevelDb(sections, ANY_RATE, grid));
  const over = (pick: (...values: number[]) => number) =>
    grid.map((_, i) => pick(...levels.map((l) => l[i]!)));
  return { highDb: over(Math.max), lowDb: over(Math.min) };
}

const largest = (gainDb: Float64Array): number => Math.max(0, ...gainDb);

const withinGrid = (grid: Float64Array, { from, to }: Span): Span => ({
  from: Math.max(grid[0]!, from),
  to: Math.min(grid.at(-1)!, to),
});

/** A band wholly below this is a subwoofer's; there the soft end takes up so much of an octave that it would spare the lowest resonance. */
const DEEP_HZ = 300;
const BELOW_BAND_HZ = 10;
/** How far the top of a full-range channel may have fallen and still belong to its span: its roll-off is kept there anyway. */
const TOP_FALL_DB = 18;

/**
 * The span that a channel has by itself: the band it plays in. At its top it goes on over the channel's own roll-off,
 * which the target follows, so that the correction does not end in what is heard. Of a subwoofer the soft end lies below its band.
 */
export function ownSpan(grid: Float64Array, averageDb: Float64Array): Span {
  const band = usableBand(grid, averageDb) ?? { from: 100, to: 10000 };
  if (band.to < DEEP_HZ) return { from: Math.max(grid[0]!, band.from - BELOW_BAND_HZ), to: band.to };
  return { from: band.from, to: usableBand(grid, averageDb, TOP_FALL_DB)?.to ?? band.to };
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
