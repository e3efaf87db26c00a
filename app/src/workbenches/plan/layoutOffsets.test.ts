import { newPlace, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { layoutOffsets, offDeg, offWords, withLayout } from './layoutOffsets';

const place = newPlace({
  name: 'R',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
});
let n = 0;
const newId = () => `new-${++n}`;
const moved = (name: string, by: { x?: number; y?: number; z?: number }) => ({
  ...place,
  loudspeakers: place.loudspeakers.map((l) =>
    l.name === name
      ? {
          ...l,
          position: {
            x: l.position.x + (by.x ?? 0),
            y: l.position.y + (by.y ?? 0),
            z: l.position.z + (by.z ?? 0),
          },
        }
      : l,
  ),
});

it('is off nowhere as it was made, and asks nothing of the subwoofer', () => {
  const offsets = layoutOffsets(place);
  expect(offsets).toHaveLength(6);
  for (const o of offsets) expect(offDeg(o)).toBeLessThan(0.6);
  expect(offsets.find((o) => o.loudspeaker.role === 'subwoofer')!.off).toBeNull();
});

it('says to which side and by how much', () => {
  // the centre, 40 cm to the right (y grows to the right), as seen over its way
  const off = layoutOffsets(moved('Centre', { y: 0.4, z: -0.3 })).find(
    (o) => o.loudspeaker.name === 'Centre',
  )!;
  const way = place.spots[0]!.position.x - place.loudspeakers.find((l) => l.name === 'Centre')!.position.x;
  const degrees = Math.round((Math.atan2(0.4, way) * 180) / Math.PI);
  expect(offWords(off)).toMatch(new RegExp(`^${degrees}° too far right, \\d+° too low$`));
});

it('takes over another layout: what is there keeps its output, what is missing comes, what is more stays', () => {
  const locked = {
    ...moved('Left', { x: 0.5 }),
    loudspeakers: moved('Left', { x: 0.5 }).loudspeakers.map((l) => ({
      ...l,
      locked: l.name === 'Left',
      output: l.output + 10,
    })),
  };
  const seven = withLayout(locked, '7.1.4', newId);
  const byName = (name: string) => seven.loudspeakers.find((l) => l.name === name)!;
  expect(byName('Left').position).toEqual(locked.loudspeakers.find((l) => l.name === 'Left')!.position);
  expect(byName('Right').output).toBe(12);
  expect(byName('Side left').output).toBe(1);
  expect(byName('Surround left').layoutLabel).toBeNull();
  expect(new Set(seven.loudspeakers.map((l) => l.output)).size).toBe(seven.loudspeakers.length);
  expect(new Set(seven.loudspeakers.map((l) => l.id)).size).toBe(seven.loudspeakers.length);
  expect(withLayout(seven, null, newId).layoutId).toBeNull();
});
