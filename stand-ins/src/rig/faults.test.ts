import { distanceBetween } from '@pebble-hall/core/geometry';
import { expect, it } from 'vitest';
import { stepNudge, type Nudge } from './index.js';

it('knocks the stand after so many sweeps, until it is put up elsewhere', () => {
  let nudge: Nudge | null = { afterTakes: 2, byM: 0.1, at: null };
  const offsets: number[] = [];
  for (const place of ['home', 'home', 'home', 'home', 'sofa']) {
    const next = stepNudge(nudge!, place);
    offsets.push(distanceBetween(next.offset, { x: 0, y: 0, z: 0 }));
    nudge = next.nudge;
  }
  expect(offsets).toEqual([0, 0, 0.1, 0.1, 0].map((v) => expect.closeTo(v, 9)));
  expect(nudge).toBeNull();
});
