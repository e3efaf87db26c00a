/** The simulated rig: an interface, a microphone and loudspeakers in a modelled room. */
export { BURROW, SimulatedRoom, type PlacedMicrophone, type RigTake } from './simulatedRoom.js';
export { noFaults, stepNudge, type Calibrator, type Faults, type Nudge } from './faults.js';
export { NET_LOFT_PLACE, type SimulatedLoudspeaker, type SimulatedPlace } from './simulatedPlace.js';
