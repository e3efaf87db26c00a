// The subwoofers of the Net Loft brought together, against a long random search over the same settings.
import type { Point } from '@pebble-hall/core/geometry';
import { filterBiquads, linkwitzRiley, logGrid, seededRandom, seedFrom } from '@pebble-hall/core/signal';
import {
  randomSettings,
  seatDeviation,
  STARTING_SUB_LIMITS,
  subsTogether,
  sumOfSubs,
} from '@pebble-hall/core/alignment';
import { responseAt } from '@pebble-hall/core/path';
import { NET_LOFT_PLACE } from '../stand-ins/src/rig/simulatedPlace.js';
import { SimulatedWays } from '../stand-ins/src/rig/simulatedWays.js';

const rate = 48000;
const TRIES = 100_000;
const frequency = logGrid(20, 80, 12);
const lowPass = linkwitzRiley('lowpass', 4, 110, rate);

function responsesOf(seed: number) {
  const random = seededRandom(seedFrom(seed, 'seats'));
  const between = (a: number, b: number) => a + (b - a) * random.uniform();
  const seats: Point[] = Array.from({ length: 6 }, () => ({
    x: between(3.3, 3.9),
    y: between(1.3, 2.8),
    z: between(1.05, 1.25),
  }));
  const ways = new SimulatedWays(NET_LOFT_PLACE, rate, seed);
  const subs = NET_LOFT_PLACE.loudspeakers.filter((l) => l.role === 'subwoofer');
  const at = subs.map((sub) =>
    seats.map((seat) => {
      const samples = ways.impulse(sub, subs, seat).subarray(0, 32768);
      return responseAt({ samples: filterBiquads(samples, lowPass), rate, zero: 0 }, frequency);
    }),
  );
  return { rate, at };
}

export function benchSubwoofers(): void {
  for (const seed of [1, 2, 3]) {
    const responses = responsesOf(seed);
    const from = performance.now();
    const { deviationDb } = subsTogether(responses);
    const took = performance.now() - from;
    const random = seededRandom(seed);
    let best = Infinity;
    for (let i = 0; i < TRIES; i++) {
      const settings = randomSettings(random, 2, frequency, STARTING_SUB_LIMITS);
      best = Math.min(best, seatDeviation(sumOfSubs(responses, settings)).deviationDb);
    }
    const { before, after } = deviationDb;
    console.log(
      `two subwoofers over six seats, draw ${seed}: seats deviate by ${after.toFixed(2)} dB, was ${before.toFixed(2)}: ` +
        `${Math.round(100 * (1 - after / before))} % less in ${(took / 1000).toFixed(1)} s (bar 30 %, or within 5 % of a long search); ` +
        `the best of ${TRIES} random settings ${best.toFixed(2)} dB, ratio ${(after / best).toFixed(2)}`,
    );
  }
}
