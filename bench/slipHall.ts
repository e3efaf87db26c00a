// The simulated rig in the Slip Hall: sweeps of its channels one after the other at spots that are new, and at a spot that is known.
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
  const channels = Array.from({ length: 8 }, (_, i) => i + 1);
  const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const walked = [1, 2].map((spot) => channels.map((output) => take(spot, output, 10 * spot + output)));
  const again = channels.map((output) => take(2, output, 100 + output));
  console.log(
    `simulated sweep in the Slip Hall: ${Math.round(mean(walked.flat()))} ms each of 8 channels at a spot that is new (the first ${Math.round(mean(walked.map((w) => w[0]!)))} ms, for all of them), ${Math.round(mean(again))} ms where it is known (bar 500)`,
  );
}
