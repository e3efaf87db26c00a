// What a microphone hears of one loudspeaker in a room, as a file in place of a microphone.
import { exponentialSweep } from '@pebble-hall/core/signal';
import { houseMemory, plainMemory } from '@pebble-hall/stand-ins/processor';
import { noFaults, SimulatedRoom } from '@pebble-hall/stand-ins/rig';
import { writeCaptureFile } from './captureFile.mjs';

const RATE = 48000;

/** Left in the room, the loopback beside it: silence, one sweep, decay. The page's own level does not matter, as the file plays its own. */
function leftHeard(sweepS: number, levelDbfs: number, memory: ReturnType<typeof plainMemory>): string {
  const sweep = exponentialSweep({ rate: RATE, from: 20, to: 20000, durationS: sweepS, levelDbfs });
  const silence = 1.5 * RATE;
  const samples = new Float32Array(silence + sweep.samples.length);
  samples.set(sweep.samples, silence);
  const { outputs, filters } = memory;
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

/** As a walk sweeps, through a processor that does nothing. */
export const leftInARoom = () => leftHeard(3, -20, plainMemory());

/** As Rig checks a channel, in the Net Loft as it was found. */
export const leftInTheLoft = () => leftHeard(1, -30, houseMemory());
