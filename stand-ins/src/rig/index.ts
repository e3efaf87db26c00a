/** The simulated rig: an interface, a microphone and loudspeakers in a modelled room. */
export { BURROW, SimulatedRoom, type PlacedMicrophone, type RigTake } from './simulatedRoom.js';
export { noFaults, type Calibrator, type Faults } from './faults.js';
