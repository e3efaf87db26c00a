/** The simulated rig: an interface, a microphone and loudspeakers in a modelled room. */
export { BURROW, noFaults, SimulatedRoom, type Faults, type RigTake } from './simulatedRoom.js';
