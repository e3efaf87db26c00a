import { expect, it } from 'vitest';
import { freeShare, usualRadius } from './balls.js';
import { Tracer } from './firstHit.js';
import { boxFaces } from './roomsForTest.js';
import { sceneOf } from './scene.js';

it('the share of a ball that is in the room is that of its cap, whatever the wall', () => {
  const scene = sceneOf(boxFaces({ x: 10, y: 8, z: 5 }, 0.2, 0.1));
  const tracer = new Tracer(scene);
  expect(usualRadius(scene)).toBeGreaterThanOrEqual(0.4);
  expect(freeShare(tracer, { x: 5, y: 4, z: 2.5 }, 0.4)).toBe(1);
  for (const d of [0.05, 0.2, 0.35]) {
    // a cap of height h is cut off
    const h = 0.4 - d;
    const cap = (Math.PI * h * h * (3 * 0.4 - h)) / 3 / ((4 / 3) * Math.PI * 0.4 ** 3);
    for (const at of [
      { x: d, y: 4, z: 2.5 },
      { x: 5, y: 8 - d, z: 2.5 },
      { x: 5, y: 4, z: d },
    ])
      expect(Math.abs(freeShare(tracer, at, 0.4) - (1 - cap))).toBeLessThan(0.03);
  }
});
