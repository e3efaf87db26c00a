/** The Net Loft as the simulated rig finds it: the room, what stands in it, the microphone. */
export { NET_LOFT, NET_LOFT_SHAPE } from './room.js';
export { NET_LOFT_LOUDSPEAKERS, type PlacedLoudspeaker } from './loudspeakers.js';
export {
  DAMAGED_SISKIN,
  KNOWN_SISKINS,
  NET_LOFT_SISKIN,
  siskinCalibrationText,
  siskinSections,
  type Incidence,
} from './siskin.js';
