import {
  SimulatedRoom,
  type Faults,
  type PlacedMicrophone,
  type RigTake,
  type SimulatedPlace,
} from '@pebble-hall/stand-ins/rig';
import { handOver, serveJobs, type JobContext } from './serveJobs';

const room = new SimulatedRoom();

const jobs = {
  record: ({ place, ...take }: RigTake & { place: SimulatedPlace }, { tell }: JobContext) => {
    room.moveTo(place);
    const channels = room.record(take, tell);
    return handOver(channels, channels);
  },
  ways: ({ place, ...asked }: Parameters<SimulatedRoom['ways']>[0] & { place: SimulatedPlace }) => {
    room.moveTo(place);
    const ways = room.ways(asked);
    const arrays = ways.feeds.flatMap((f) => [f.drive, ...f.ways.map((w) => w.impulse)]);
    return handOver(ways, ways.loopback ? [...arrays, ways.loopback] : arrays);
  },
  listen: (i: {
    microphones: PlacedMicrophone[];
    faults: Faults;
    inputs: number[];
    fromFrame: number;
    length: number;
  }) => {
    const channels = room.listenAll(i.microphones, i.faults, i.inputs, i.fromFrame, i.length);
    return handOver(channels, channels);
  },
};
export type RoomJobs = typeof jobs;
serveJobs(jobs);
