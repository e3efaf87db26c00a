import { interpolateLog, powerOfDb } from '../signal/index.js';
import { designChannel, foundChannel, type ChannelDesign } from './designChannel.js';
import { exactChannel, STARTING_FILTER, type ExactChannel, type ProcessorLimits } from './exactChannel.js';
import { STARTING_GOAL } from './startingGoal.js';
import type { Target } from './targetShape.js';

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
  const found = foundChannel(grid, [level.map(powerOfDb)]);
  const span = { from: Math.max(25, found.ownSpan.from), to: Math.min(12000, found.ownSpan.to) };
  const request = { ...STARTING_GOAL, ...goal, id: 'headphones', span, targetOffsetDb: null };
  const design = designChannel(grid, request, found);
  return { design, exact: exactChannel(grid, design, goal, STARTING_FILTER, processor) };
}
