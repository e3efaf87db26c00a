import { describe, expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { movedMicrophone, type HeardFrom } from './index.js';

/** Five loudspeakers around a listener, as in a small room. */
const loudspeakers = [
  { x: 0.6, y: 0.9, z: 1.2 },
  { x: 0.55, y: 3.3, z: 1.2 },
  { x: 0.35, y: 2.05, z: 1.0 },
  { x: 4.65, y: 0.45, z: 1.7 },
  { x: 4.7, y: 3.75, z: 1.7 },
];
const spot = { x: 3.6, y: 1.72, z: 1.14 };

/** Ways to a true place beside the planned one, moved by a vector before one of the channels, each off by up to 4 mm (a sample). */
function heard(seed: number, before: number, [dx, dy, dz]: [number, number, number]): HeardFrom[] {
  const { uniform } = seededRandom(seed);
  const off = () => 0.008 * (uniform() - 0.5);
  const place = { x: spot.x + 0.1 * (uniform() - 0.5), y: spot.y + 0.1 * (uniform() - 0.5), z: spot.z };
  return loudspeakers.map((l, i) => {
    const m = i < before ? [0, 0, 0] : [dx, dy, dz];
    return {
      loudspeaker: l,
      wayM: Math.hypot(place.x + m[0]! - l.x, place.y + m[1]! - l.y, place.z + m[2]! - l.z) + off(),
    };
  });
}

it('takes no spot for moved that was not, in 200 rounds', () => {
  for (let seed = 1; seed <= 200; seed++) expect(movedMicrophone(heard(seed, 5, [0, 0, 0]), spot)).toBeNull();
});

describe('a move of 20 cm', () => {
  it('is found in at least 9 of 10 rounds, whichever way it goes along the floor', () => {
    let found = 0;
    for (let seed = 1; seed <= 100; seed++) {
      const angle = (2 * Math.PI * seed) / 100;
      const before = 1 + (seed % 4);
      if (movedMicrophone(heard(seed, before, [0.2 * Math.cos(angle), 0.2 * Math.sin(angle), 0]), spot))
        found++;
    }
    expect(found).toBeGreaterThanOrEqual(90);
  });

  it('half-way through is put between the right channels, and measured roughly', () => {
    const moved = movedMicrophone(heard(3, 3, [0.2, 0, 0]), spot)!;
    expect(moved.before).toBe(3);
    expect(moved.byM).toBeGreaterThan(0.08);
  });
});

it('says nothing with fewer than four channels', () => {
  expect(movedMicrophone(heard(1, 1, [0.5, 0.5, 0]).slice(0, 3), spot)).toBeNull();
});
