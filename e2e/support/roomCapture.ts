// What a microphone hears of one loudspeaker in a room, as a file in place of a microphone.
import { exponentialSweep } from '@pebble-hall/core/signal';
import { plainMemory } from '@pebble-hall/stand-ins/processor';
import { noFaults, SimulatedRoom } from '@pebble-hall/stand-ins/rig';
import { writeCaptureFile } from './captureFile.mjs';

const RATE = 48000;
/** As a walk sweeps; the page's own level does not matter, as the file plays its own. */
const SWEEP_S = 3;

/** Left in the room, the loopback beside it: silence, a sweep as the walk plays it, decay. */
export function leftInARoom(): string {
  const sweep = exponentialSweep({ rate: RATE, from: 20, to: 20000, durationS: SWEEP_S, levelDbfs: -20 });
  const silence = 1.5 * RATE;
  const samples = new Float32Array(silence + sweep.samples.length);
  samples.set(sweep.samples, silence);
  const { outputs, filters } = plainMemory();
  const [microphone, loopback] = new SimulatedRoom(1).record({
    signals: [{ output: 1, samples }],
    lengthFrames: samples.length + 3 * RATE,
    microphones: [
      { input: 1, position: { x: 3.6, y: 1.72, z: 1.14 }, serial: 4417, incidenceDeg: 0, gainDb: 0 },
    ],
    outputs,
    filters,
    faults: noFaults(),
    take: 1,
  });
  return writeCaptureFile([microphone!, loopback!]);
}
