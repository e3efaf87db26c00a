import { type Point } from '@pebble-hall/core/geometry';
import {
  likeness,
  REFERENCE_TAIL_S,
  referenceResponse,
  SAME_PLACE,
  timingClick,
} from '@pebble-hall/core/measure';
import { convolve, gainOfDb, seededRandom, shapedNoise } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { NET_LOFT_PLACE } from './simulatedPlace.js';
import { SimulatedWays } from './simulatedWays.js';

const RATE = 48000;
const click = Float64Array.from(timingClick(RATE, -48));
const { loudspeakers } = NET_LOFT_PLACE;
const reference = loudspeakers.find((l) => l.id === 'centre')!;
/** What comes early tells one place from the next: few rays will do for the rest. */
const inLoft = new SimulatedWays(NET_LOFT_PLACE, RATE, 3, 2000);
const LATENCY = 574.37;

/** The answer to the reference click at a place, 30 dB of noise and the interface's latency with it. */
function answerAt(place: Point, seed: number): Float32Array {
  const room = inLoft.impulse(reference, [reference], place);
  const length = Math.round(REFERENCE_TAIL_S * RATE);
  const heard = convolve(click, room.subarray(0, length));
  const noise = shapedNoise(length, RATE, seed, (f) => (f < 12 ? 0 : 1 / f));
  const tail = Float64Array.from(
    { length },
    (_, i) => (heard[i - Math.floor(LATENCY)] ?? 0) + gainOfDb(-68) * noise[i]!,
  );
  return referenceResponse(tail, RATE, LATENCY);
}

const spots: Point[] = [
  { x: 3.6, y: 1.72, z: 1.14 },
  { x: 3.6, y: 1.2, z: 1.14 },
  { x: 2.7, y: 3.3, z: 1.0 },
];
const random = seededRandom(11);
/** Directions all around, as a knock may have. */
const ways = Array.from({ length: 5 }, (): Point => {
  const [x, y, z] = [random.normal(), random.normal(), random.normal()];
  const r = Math.hypot(x, y, z);
  return { x: x / r, y: y / r, z: z / r };
});

describe('the reference click', () => {
  it('sounds the same as long as nobody touches the stand', () => {
    spots.forEach((spot, i) => {
      const [a, b] = [answerAt(spot, 2 * i + 1), answerAt(spot, 2 * i + 2)];
      expect(likeness(a, b), `spot ${i}`).toBeGreaterThan((1 + SAME_PLACE) / 2);
    });
  });

  it.each([0.05, 0.1])('tells a microphone that was moved by %f m, in whatever direction', (byM) => {
    spots.forEach((spot, i) => {
      const before = answerAt(spot, 50 + i);
      ways.forEach((way, k) => {
        const place = { x: spot.x + byM * way.x, y: spot.y + byM * way.y, z: spot.z + byM * way.z };
        expect(likeness(before, answerAt(place, 90 + k)), `spot ${i}, way ${k}`).toBeLessThan(SAME_PLACE);
      });
    });
  });
});
