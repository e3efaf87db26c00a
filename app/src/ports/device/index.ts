/** The stand-in on the bench of the simulated rig: its front, and how its knobs stand. */
export {
  knobValue,
  TIDEPOOL as STAND_IN_DEVICE,
  TIDEPOOL_KNOBS as DEVICE_KNOBS,
  type Knob,
  type Knobs,
} from '@pebble-hall/stand-ins/mixer';
