import { correctHeadphones, HEADPHONE_TARGETS, STARTING_GOAL } from '@pebble-hall/core/correct';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { SKERRY } from '../processor/index.js';
import { HEADPHONE_MODELS, headphoneResponse } from './index.js';

const grid = logGrid();

it.each(HEADPHONE_MODELS)('%s comes to half its distance from the target, within the limits', (model) => {
  const { design, exact } = correctHeadphones(
    grid,
    headphoneResponse(model),
    { ...STARTING_GOAL, target: HEADPHONE_TARGETS[0]!.target },
    SKERRY,
  );
  // from the lows on, though an ear raises the treble far above them
  expect(design.span.from).toBeLessThan(60);
  expect(design.distance.after).toBeLessThan(0.5 * design.distance.before);
  expect(exact.headroom.toneDb).toBeLessThan(6.2);
  grid.forEach((f, i) => {
    if (f > design.span.to) expect(Math.abs(exact.levelDb[i]!)).toBeLessThan(0.1);
  });
});

it('knows no other models', () => {
  expect(() => headphoneResponse('x')).toThrow(/there is no x/);
});
