/** How loudspeakers radiate: radiators by physics, balloons, what is read off them. */
export { capGain, pistonGain, radiatorGain, sphereGain, type Complex, type Radiator } from './radiators.js';
export { crossoverTrace, type WayFilter } from './wayFilter.js';
export {
  ANGLE_STEP_DEG,
  ANGLES,
  layerGain,
  layerOf,
  shareAbout,
  stepsOffAxis,
  writeTaps,
  type Balloon,
  type Layer,
  type Taps,
  type Way,
} from './balloon.js';
export { beamwidthDeg, directivityIndexDb, polarDb } from './figures.js';
export { dataGain, isWithinData, layerOfData, needBalloonData, type BalloonData } from './balloonData.js';
export {
  axisTrace,
  radiationLayer,
  type AxisResponse,
  type LevelCurve,
  type RadiatingModel,
  type Radiation,
} from './model.js';
