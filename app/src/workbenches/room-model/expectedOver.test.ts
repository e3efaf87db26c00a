import { expectedFigures } from '@pebble-hall/core/acoustics';
import type { ReceiverReading, RoomRun, RunSource } from '@pebble-hall/core/runs';
import { expect, it } from 'vitest';
import { expectedOver } from './expectedOver';

const point = { id: 'p', name: 'P', kind: 'omnidirectional', position: { x: 0, y: 0, z: 0 } } as RunSource;
const run = (...sources: RunSource[]): Pick<RoomRun, 'sources' | 'volume'> => ({ sources, volume: 2000 });
const reading = (t30: number) =>
  ({ figures: Array.from({ length: 8 }, () => ({ t30 })) }) as unknown as ReceiverReading;

it('is told for one source that sends everywhere alike, by the mean time of all receivers', () => {
  const all = [reading(1), reading(1.4), reading(NaN)];
  const expected = expectedOver(run(point), all, 'g', 4, 1)!;
  expect(expected.at(10)).toBe(expectedFigures(10, 1.2, 2000).g);
  // a distance in feet
  expect(expectedOver(run(point), all, 'c80', 4, 0.3048)!.at(30)).toBe(
    expectedFigures(30 * 0.3048, 1.2, 2000).c80,
  );
});

it('nothing is told of other figures, other sources, several, or where it never dies away', () => {
  expect(expectedOver(run(point), [reading(1)], 't30', 4, 1)).toBeNull();
  expect(expectedOver(run({ ...point, kind: 'talker' } as RunSource), [reading(1)], 'g', 4, 1)).toBeNull();
  expect(expectedOver(run(point, point), [reading(1)], 'g', 4, 1)).toBeNull();
  expect(expectedOver(run(point), [reading(NaN)], 'g', 4, 1)).toBeNull();
});
