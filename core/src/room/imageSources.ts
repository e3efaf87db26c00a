import { speedOfSound } from './air.js';
import type { Point } from '../geometry/index.js';
import { checkBox, type BoxRoom } from './box.js';

/** One image source as seen from the receiver. */
export interface ImageArrival {
  /** metres of the whole path */
  distance: number;
  /** unit vector in which the sound left the true source */
  emission: [number, number, number];
  /** how often the path met each of the six walls, in the order of `BoxRoom.absorption` */
  hits: [number, number, number, number, number, number];
}

/**
 * Visits every image source of a box whose sound arrives within a time (Allen and Berkley 1979). In a box every image is
 * visible. The visited object is reused: copy what is to be kept.
 * @param longestS arrival times up to this, seconds
 */
export function visitImages(
  room: BoxRoom,
  source: Point,
  receiver: Point,
  longestS: number,
  visit: (arrival: ImageArrival) => void,
): void {
  checkBox(room);
  for (const a of ['x', 'y', 'z'] as const) {
    for (const [who, at] of [
      ['source', source],
      ['receiver', receiver],
    ] as const) {
      if (!(at[a] >= 0 && at[a] <= room.size[a]))
        throw new RangeError(`box: the ${who} lies outside the room`);
    }
  }
  const reach = longestS * speedOfSound(room.air.temperatureC);
  // along one axis, image j lies at j * size + (j even ? s : size - s), after |j| reflections
  const axis = (a: 'x' | 'y' | 'z') => {
    const size = room.size[a];
    const last = Math.ceil(reach / size) + 1;
    return Array.from({ length: 2 * last + 1 }, (_, i) => {
      const j = i - last;
      const odd = j % 2 !== 0;
      const offset = receiver[a] - (j * size + (odd ? size - source[a] : source[a]));
      const count = Math.abs(j);
      const [first, second] = [Math.ceil(count / 2), Math.floor(count / 2)];
      // an image to the left (j < 0) met the near wall first, one to the right the far wall
      return { offset, mirror: odd ? -1 : 1, near: j < 0 ? first : second, far: j < 0 ? second : first };
    }).filter(({ offset }) => Math.abs(offset) <= reach);
  };
  const [xs, ys, zs] = [axis('x'), axis('y'), axis('z')];
  const arrival: ImageArrival = { distance: 0, emission: [0, 0, 0], hits: [0, 0, 0, 0, 0, 0] };
  const { emission, hits } = arrival;
  for (const x of xs) {
    hits[0] = x.near;
    hits[1] = x.far;
    for (const y of ys) {
      const xy = x.offset * x.offset + y.offset * y.offset;
      if (xy > reach * reach) continue;
      hits[2] = y.near;
      hits[3] = y.far;
      for (const z of zs) {
        const distance = Math.sqrt(xy + z.offset * z.offset);
        if (distance > reach) continue;
        hits[4] = z.near;
        hits[5] = z.far;
        arrival.distance = distance;
        const scale = distance > 0 ? 1 / distance : 0;
        emission[0] = x.offset * x.mirror * scale;
        emission[1] = y.offset * y.mirror * scale;
        emission[2] = z.offset * z.mirror * scale;
        visit(arrival);
      }
    }
  }
}

/** Arrival times in seconds of all image sources up to a time, ascending. */
export function boxArrivals(room: BoxRoom, source: Point, receiver: Point, longestS: number): Float64Array {
  const c = speedOfSound(room.air.temperatureC);
  const times: number[] = [];
  visitImages(room, source, receiver, longestS, ({ distance }) => times.push(distance / c));
  return Float64Array.from(times).sort();
}
