// The simulated rig in the Slip Hall: a sweep where the way of sound is new, and where it is known.
import { plainOutput } from '@pebble-hall/core/processing';
import { exponentialSweep } from '@pebble-hall/core/signal';
import { slipHallProject } from '../demo/slipHallProject.js';
import { noFaults, SimulatedRoom } from '../stand-ins/src/rig/index.js';

const RATE = 48000;

export function benchSlipHall(): void {
  const { place } = slipHallProject();
  const room = new SimulatedRoom(1, 1, place);
  const sweep = exponentialSweep({ rate: RATE, from: 20, to: 20000, durationS: 3, levelDbfs: -20 });
  const samples = new Float32Array(0.6 * RATE + sweep.samples.length);
  samples.set(sweep.samples, 0.6 * RATE);
  const take = (spot: number, output: number, count: number) => {
    const from = performance.now();
    room.record({
      signals: [{ output, samples }],
      lengthFrames: samples.length + 1.2 * RATE,
      microphones: [
        { input: 1, position: place.spots[spot]!.position, serial: 4417, incidenceDeg: 0, gainDb: 0 },
      ],
      outputs: place.loudspeakers.map(() => plainOutput()),
      filters: [],
      faults: noFaults(),
      inputs: [1, 2],
      take: count,
    });
    return performance.now() - from;
  };
  take(0, 1, 0);
  const first: number[] = [];
  const again: number[] = [];
  for (let i = 0; i < 8; i++) {
    first.push(take(1 + i, 1 + i, i));
    again.push(take(1 + i, 1 + i, 100 + i));
  }
  const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  console.log(
    `simulated sweep in the Slip Hall, 8 channels: ${Math.round(median(first))} ms where the way of sound is new, ${Math.round(median(again))} ms where it is known (bar 500)`,
  );
}
