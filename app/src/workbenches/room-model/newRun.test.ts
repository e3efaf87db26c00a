import { distanceBetween } from '@pebble-hall/core/geometry';
import { newPlace } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { receiversOf } from './newRun';

const place = newPlace({ name: 'P', kind: 'hall', size: { x: 20, y: 12, z: 6 }, layoutId: 'none' });

it('a line goes from the source over the middle to the wall behind it, evenly, at ear height', () => {
  const source = { x: 2, y: 6, z: 1.6 };
  const line = receiversOf({ ...place, audience: [] }, 'a line to the rear', source);
  expect(line).toHaveLength(12);
  const along = line.map(({ position }) => position.x - source.x);
  expect(along[0]).toBeCloseTo(1, 6);
  // to within a step of half a metre ahead of the wall at 20 m
  expect(along.at(-1)).toBeCloseTo(17.5, 1);
  for (const { position, azimuthDeg } of line) {
    expect(position.y).toBeCloseTo(6, 6);
    expect(position.z).toBeCloseTo(1.2, 6);
    // it looks at where the sound comes from
    expect(Math.abs(azimuthDeg)).toBe(180);
  }
  const steps = line.slice(1).map((r, i) => distanceBetween(r.position, line[i]!.position));
  for (const step of steps) expect(step).toBeCloseTo(steps[0]!, 6);
  expect(new Set(line.map((r) => r.name)).size).toBe(12);
});
