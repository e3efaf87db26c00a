import { SimulatedRoom, type Faults, type PlacedMicrophone, type RigTake } from '@pebble-hall/stand-ins/rig';
import { expose, transfer } from 'comlink';

const room = new SimulatedRoom();

const handOver = (channels: Float32Array[]) =>
  transfer(
    channels,
    channels.map((c) => c.buffer),
  );

const api = {
  record: (take: RigTake): Float32Array[] => handOver(room.record(take)),
  /** Blocks for meters; an input without a microphone is silent. */
  listen: (
    microphones: PlacedMicrophone[],
    faults: Faults,
    inputs: number[],
    fromFrame: number,
    length: number,
  ): Float32Array[] =>
    handOver(
      inputs.map((input) => {
        const microphone = microphones.find((m) => m.input === input);
        return microphone ? room.listen(microphone, faults, fromFrame, length) : new Float32Array(length);
      }),
    ),
};
export type RoomApi = typeof api;
expose(api);
