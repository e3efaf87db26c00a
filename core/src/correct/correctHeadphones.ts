import type { ProcessorLimits } from '../processing/index.js';
import { interpolateLog, logGrid, powerOfDb } from '../signal/index.js';
import { designChannel, measuredChannel, ownSpan, type ChannelDesign } from './designChannel.js';
import { exactChannel, STARTING_FILTER, type ExactChannel } from './exactChannel.js';
import { STARTING_GOAL } from './startingGoal.js';
import { targetShape, type Target } from './targetShape.js';

export interface HeadphoneGoal {
  target: Target;
  strength: number;
  maxBoostDb: number;
  maxCutDb: number;
}

/**
 * A correction of headphones from their response on an ear, by the same engine as a channel's: one "spot", which all
 * listening shares. Above 12 kHz, where every ear differs, nothing is done.
 * @param response Hz ascending, dB
 */
export function correctHeadphones(
  grid: Float64Array,
  response: { frequency: number[]; levelDb: number[] },
  goal: HeadphoneGoal,
  processor: ProcessorLimits,
): { design: ChannelDesign; exact: ExactChannel } {
  const level = interpolateLog(
    Float64Array.from(response.frequency),
    Float64Array.from(response.levelDb),
    grid,
  );
  const found = measuredChannel(grid, [level.map(powerOfDb)]);
  // an ear raises the treble by 15 dB: what they play is judged against what they shall play, not against their loudest
  const shape = targetShape(goal.target, grid);
  const own = ownSpan(
    grid,
    level.map((v, i) => v - shape[i]!),
  );
  const span = { from: Math.max(20, own.from), to: Math.min(12000, own.to) };
  const request = { ...STARTING_GOAL, ...goal, id: 'headphones', span, targetOffsetDb: null };
  const design = designChannel(grid, request, found);
  return { design, exact: exactChannel(grid, design, goal, STARTING_FILTER, processor) };
}

/** A correction of headphones to be shown and loaded; curves on the 1/48-octave grid, dB. */
export interface CorrectedHeadphones {
  foundDb: Float64Array;
  predictedDb: Float64Array;
  targetDb: Float64Array;
  fir: Float32Array;
  toneDb: number;
  distance: { before: number; after: number };
}

export function headphoneCorrection(
  onEar: { frequency: number[]; levelDb: number[] },
  goal: HeadphoneGoal,
  processor: ProcessorLimits,
): CorrectedHeadphones {
  const { design, exact } = correctHeadphones(logGrid(), onEar, goal, processor);
  return {
    foundDb: design.found.averageDb,
    predictedDb: design.found.averageDb.map((v, i) => v + exact.levelDb[i]!),
    targetDb: design.targetDb,
    fir: exact.fir!,
    toneDb: exact.headroom.toneDb,
    distance: design.distance,
  };
}
