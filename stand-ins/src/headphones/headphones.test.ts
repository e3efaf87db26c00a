import { correctHeadphones, STARTING_GOAL } from '@pebble-hall/core/correct';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { HEADPHONE_MODELS, headphoneResponse } from './index.js';

const grid = logGrid();
const processor = {
  rate: 48000,
  mostTaps: 8192,
  mostSections: 24,
  gainStepDb: 0.1,
  frequencyStepHz: 1,
  leastSectionDb: -30,
  mostSectionDb: 15,
};
const level = {
  handles: [{ frequency: 1000, levelDb: 0 }],
  lowLiftDb: 0,
  highTiltDb: 0,
  lowReachHz: null,
  highReachHz: null,
};

it.each(HEADPHONE_MODELS)('%s comes to half its distance from the target, within the limits', (model) => {
  const { design, exact } = correctHeadphones(
    grid,
    headphoneResponse(model),
    { ...STARTING_GOAL, target: level },
    processor,
  );
  expect(design.distance.after).toBeLessThan(0.5 * design.distance.before);
  expect(exact.headroom.toneDb).toBeLessThan(6.2);
  grid.forEach((f, i) => {
    if (f > design.span.to) expect(Math.abs(exact.levelDb[i]!)).toBeLessThan(0.1);
  });
});

it('knows no other models', () => {
  expect(() => headphoneResponse('x')).toThrow(/there is no x/);
});
