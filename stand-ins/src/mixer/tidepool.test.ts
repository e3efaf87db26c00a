import { shapesLevelDb } from '@pebble-hall/core/shapes';
import { dbOfGain } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { knobValue, TIDEPOOL, TIDEPOOL_KNOBS, tidepoolChannels } from './index.js';

const at = Float64Array.of(100, 1000, 10_000);

describe('the mixer as it is delivered', () => {
  it('has two channels up, one to each side, and flat within a few tenths', () => {
    const channels = tidepoolChannels({});
    expect(channels).toHaveLength(TIDEPOOL.channels);
    const [first, second, third] = channels;
    expect(dbOfGain(first!.gain * first!.left)).toBeCloseTo(0, -0.3);
    expect(dbOfGain(second!.gain * second!.right)).toBeCloseTo(0, -0.3);
    expect(dbOfGain(first!.right)).toBeLessThan(-60);
    expect([third!.left, third!.right]).toEqual([0, 0]);
    shapesLevelDb(first!.shapes, at).forEach((db) => expect(Math.abs(db)).toBeLessThan(0.2));
  });
  it('is the same mixer every time, and another one by another seed', () => {
    expect(tidepoolChannels({})).toEqual(tidepoolChannels({}));
    expect(tidepoolChannels({}, 7)[0]!.gain).not.toBe(tidepoolChannels({})[0]!.gain);
  });
});

it('a knob does about what is printed beside it, and every channel a little otherwise', () => {
  const knobs = { '1.low': 15, '2.low': 15, '1.mid': -12, '1.sweep': 400, '1.high': 6 };
  const [first, second] = tidepoolChannels(knobs);
  const [low, , high] = shapesLevelDb(first!.shapes, at);
  expect(low).toBeGreaterThan(4);
  expect(high).toBeGreaterThan(2);
  const middle = first!.shapes.find((s) => s.kind === 'peaking')!;
  expect(Math.abs(middle.hz / 400 - 1)).toBeLessThan(0.15);
  expect(Math.abs(middle.gainDb / -12 - 1)).toBeLessThan(0.09);
  expect(first!.shapes[1]!.hz).not.toBe(second!.shapes[1]!.hz);
});

it('knobs stay within what is printed, and what is no number is as delivered', () => {
  for (const { name, least, most } of TIDEPOOL_KNOBS) {
    expect(knobValue({ [`3.${name}`]: 1e9 }, 3, name)).toBe(most);
    expect(knobValue({ [`3.${name}`]: -1e9 }, 3, name)).toBe(least);
  }
  expect(knobValue({ '1.fader': NaN }, 1, 'fader')).toBe(-60);
  expect(knobValue({}, 1, 'fader')).toBe(0);
});
