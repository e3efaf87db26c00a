import { describe, expect, it } from 'vitest';
import { analyseSweep } from '../measure/index.js';
import { recordThrough } from '../measure/testSignals.js';
import { allPass, butterworth, filterBiquads, logGrid, type Biquad } from '../signal/index.js';
import { excessPhase, sharedPhase } from './excessPhase.js';

const rate = 48000;
const grid = logGrid();
const late = Float64Array.from({ length: 101 }, (_, i) => (i === 100 ? 0.5 : 0));

/** Excess phase, degrees, of sections as our own sweep measures them, 100 samples late. */
function measured(sections: Biquad[], { gain = 1, offset = 0 } = {}): Float64Array {
  const { sweep, ...recording } = recordThrough(late);
  const microphone = filterBiquads(Float64Array.from(recording.microphone), sections).map(
    (v) => gain * v + offset,
  );
  const { impulse } = analyseSweep({ ...recording, microphone }, sweep);
  return excessPhase(impulse, grid).map((radians) => (radians * 180) / Math.PI);
}
const within = (from: number, to: number) =>
  [...grid.keys()].filter((i) => grid[i]! >= from && grid[i]! <= to);
const most = (excess: Float64Array, from: number, to: number) =>
  Math.max(...within(from, to).map((i) => Math.abs(excess[i]!)));

describe('excess phase of what a sweep measures', () => {
  it.each([1, 2, 4, 6, 8].flatMap((order) => [20, 50, 120].map((corner) => ({ order, corner }))))(
    'is none for a high-pass of order $order at $corner Hz',
    ({ order, corner }) => {
      expect(most(measured(butterworth('highpass', order, corner, rate)), 1.2 * corner, 800)).toBeLessThan(3);
    },
  );

  it('does not hang on what lies below the band, nor counts polarity', () => {
    const sections = butterworth('highpass', 4, 50, rate);
    for (const offset of [9e-9, -9e-9]) expect(most(measured(sections, { offset }), 60, 800)).toBeLessThan(3);
    // an inverted one has half a turn more, and shares none of it
    const inverted = measured(sections, { gain: -1 });
    expect(
      most(
        inverted.map((v) => Math.abs(v) - 180),
        60,
        800,
      ),
    ).toBeLessThan(3);
    const radians = inverted.map((v) => (v * Math.PI) / 180);
    expect(most(sharedPhase(grid, [radians, radians]).radians, 60, 800)).toBeLessThan(0.06);
  });

  it('is that of an all-pass, whatever high-pass comes with it', () => {
    // of second order, Q 2, at 200 Hz: 2 atan((f / f0) / (Q (1 - (f / f0)^2))) behind
    const turn = (f: number) => {
      const x = f / 200;
      return (-2 * 180 * Math.atan2(x / 2, 1 - x * x)) / Math.PI;
    };
    for (const order of [2, 8]) {
      const excess = measured([...butterworth('highpass', order, 40, rate), allPass(200, 2, rate)]);
      // a part of its turn is counted as delay: what is left is the turn less a straight line, but for whole turns
      const points = within(60, 700);
      const rest = points.map((i) => excess[i]! - turn(grid[i]!));
      const slope = (rest.at(-1)! - rest[0]!) / (grid[points.at(-1)!]! - grid[points[0]!]!);
      points.forEach((i, p) =>
        expect(Math.abs(rest[p]! - rest[0]! - slope * (grid[i]! - grid[points[0]!]!))).toBeLessThan(4),
      );
      expect(Math.abs(((rest[0]! - slope * grid[points[0]!]! + 3780) % 360) - 180)).toBeLessThan(6);
    }
  });
});
