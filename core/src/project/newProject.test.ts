import { describe, expect, it } from 'vitest';
import { LAYOUTS, offLayout } from '../layouts/index.js';
import { distanceBetween } from '../geometry/index.js';
import { boxesOf, seatsOf } from '../place/index.js';
import {
  checkProject,
  FACING_DEG,
  MAINS_LAYOUT,
  newProject,
  NO_LAYOUT,
  PLACE_KINDS,
  USUAL_SIZE,
  type NewProject,
} from './index.js';

const asked = (over: Partial<NewProject> = {}): NewProject => ({
  name: 'A room',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
  rig: 'simulated',
  ...over,
});

describe.each(PLACE_KINDS)('a new %s', (kind) => {
  it.each([...LAYOUTS.map((l) => l.id), MAINS_LAYOUT.id, NO_LAYOUT.id])(
    'with %s is a whole project, everything within its walls',
    (layoutId) => {
      const size = USUAL_SIZE[kind];
      const project = newProject('p', asked({ kind, size, layoutId }));
      expect(checkProject(project)).toEqual({ project });
      const { loudspeakers, spots, seats, audience, shape } = project.place;
      const points = [
        ...loudspeakers.flatMap((l) => boxesOf(l).map((b) => b.position)),
        ...spots.map((s) => s.position),
        ...seats.map((s) => s.position),
        ...audience.flatMap((a) => seatsOf(a, shape).map((s) => s.position)),
      ];
      expect(points.length).toBeGreaterThan(3);
      for (const p of points)
        for (const axis of ['x', 'y', 'z'] as const) {
          expect(p[axis]).toBeGreaterThan(0);
          expect(p[axis]).toBeLessThan(size[axis]);
        }
      expect(new Set(loudspeakers.map((l) => l.output)).size).toBe(loudspeakers.length);
    },
  );
});

it('places every loudspeaker by its layout, all as far from the home spot', () => {
  const { place } = newProject('p', asked({ layoutId: '7.1.4' }));
  const listener = { position: place.spots[0]!.position, facingDeg: FACING_DEG };
  const channels = LAYOUTS.find((l) => l.id === '7.1.4')!.channels;
  const ways: number[] = [];
  for (const l of place.loudspeakers) {
    const off = offLayout(
      channels.find((c) => c.label === l.layoutLabel)!,
      l.position,
      listener,
    );
    if (!off) continue;
    // positions are whole centimetres
    expect(Math.abs(off.azimuthDeg) + Math.abs(off.elevationDeg), l.name).toBeLessThan(0.6);
    ways.push(distanceBetween(l.position, listener.position));
  }
  expect(ways).toHaveLength(11);
  expect(Math.max(...ways) - Math.min(...ways)).toBeLessThan(0.02);
});

it('with real devices no processor is taken for granted', () => {
  expect(newProject('p', asked()).processor).toEqual({ adapter: 'stand-in', unit: 'p' });
  expect(newProject('p', asked({ rig: 'web audio' })).processor).toMatchObject({
    adapter: 'files only',
    profile: { memories: [] },
  });
});
