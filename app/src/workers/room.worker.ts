import { SimulatedRoom, type RigTake } from '@pebble-hall/stand-ins/rig';
import { expose, transfer } from 'comlink';

const room = new SimulatedRoom();

const api = {
  record: (take: RigTake): Float32Array[] => {
    const channels = room.record(take);
    return transfer(
      channels,
      channels.map((c) => c.buffer),
    );
  },
};
export type RoomApi = typeof api;
expose(api);
