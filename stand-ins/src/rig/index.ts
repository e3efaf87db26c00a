/** The simulated rig: an interface, a microphone and loudspeakers in a modelled room. */
export { BURROW } from './burrow.js';
export { SimulatedRoom, type PlacedMicrophone, type RigTake } from './simulatedRoom.js';
export {
  SimulatedSession,
  type SessionFeed,
  type SessionMicrophone,
  type SessionWays,
} from './simulatedSession.js';
export type { BenchDevice } from './mixerFeeds.js';
export {
  noFaults,
  ROOM_SOUNDS,
  stepNudge,
  type Calibrator,
  type Faults,
  type Nudge,
  type RoomSound,
} from './faults.js';
export { NET_LOFT_PLACE, type SimulatedLoudspeaker, type SimulatedPlace } from './simulatedPlace.js';
