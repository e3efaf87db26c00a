import type { Point } from '../geometry/index.js';
import { describe, expect, it } from 'vitest';
import { boxArrivals, speedOfSound, visitImages, type BoxRoom } from './index.js';

const flat = (a: number) => new Array<number>(8).fill(a);
const room: BoxRoom = {
  size: { x: 5.6, y: 4.1, z: 2.6 },
  absorption: [flat(0.1), flat(0.1), flat(0.2), flat(0.2), flat(0.3), flat(0.05)],
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
};
const source: Point = { x: 1, y: 0.7, z: 1.1 };
const receiver: Point = { x: 3.6, y: 2.05, z: 1.2 };

/** Allen and Berkley's double sum: image at 2 n L + (1 - 2 p) s, for all n and p in {0, 1}, per axis. */
function plainTimes(longestS: number): number[] {
  const c = speedOfSound(20);
  const coordinates = (a: 'x' | 'y' | 'z') => {
    const out: number[] = [];
    for (let n = -40; n <= 40; n++)
      for (const p of [0, 1]) out.push(2 * n * room.size[a] + (1 - 2 * p) * source[a]);
    return out;
  };
  const times: number[] = [];
  for (const x of coordinates('x')) {
    for (const y of coordinates('y')) {
      for (const z of coordinates('z')) {
        const t = Math.hypot(x - receiver.x, y - receiver.y, z - receiver.z) / c;
        if (t <= longestS) times.push(t);
      }
    }
  }
  return times.sort((a, b) => a - b);
}

describe('image sources of a box', () => {
  it('arrive when the analytic list says, to 1e-9 s', () => {
    const want = plainTimes(0.08);
    const got = boxArrivals(room, source, receiver, 0.08);
    expect(got.length).toBe(want.length);
    want.forEach((t, i) => expect(Math.abs(got[i]! - t)).toBeLessThan(1e-9));
  });

  it('leave in the mirrored direction and count the walls they met', () => {
    const firstOrder: { hits: number[]; emission: number[] }[] = [];
    visitImages(room, source, receiver, 0.05, ({ hits, emission }) => {
      if (hits.reduce((a, b) => a + b) <= 1) firstOrder.push({ hits: [...hits], emission: [...emission] });
    });
    expect(firstOrder.length).toBe(7);
    const floor = firstOrder.find((a) => a.hits[4] === 1)!;
    // towards the floor point where angle of incidence equals angle of reflection
    const path = [2.6, 1.35, -(1.1 + 1.2)];
    const length = Math.hypot(...path);
    floor.emission.forEach((e, a) => expect(e).toBeCloseTo(path[a]! / length, 12));
  });

  it('refuses a source outside the room and absorption of 1', () => {
    expect(() => boxArrivals(room, { x: 9, y: 1, z: 1 }, receiver, 0.01)).toThrow(/source lies outside/);
    const black = {
      ...room,
      absorption: [flat(1), flat(0), flat(0), flat(0), flat(0), flat(0)],
    } as unknown as BoxRoom;
    expect(() => boxArrivals(black, source, receiver, 0.01)).toThrow(/below 1/);
  });
});
