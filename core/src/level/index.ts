/** Sound level: weightings, the meter, and the calibrator that ties full scale to pascals. */
export { magnitudeAt, weightingDb, weightingSections, type Weighting } from './weighting.js';
export {
  SoundLevelMeter,
  TIME_CONSTANT_S,
  TIME_WEIGHTINGS,
  WEIGHTINGS,
  type TimeWeighting,
  type WeightedReading,
} from './soundLevelMeter.js';
export {
  CALIBRATOR_HOLD_S,
  CalibratorTone,
  type CalibratorProblem,
  type CalibratorReading,
} from './calibratorTone.js';
export { loudness, loudnessSections } from './loudness.js';
