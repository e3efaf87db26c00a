/** Sound as rays in a room of flat faces: what they meet, and what they bring where. */
export { sceneOf, type Scene, type TracedFace } from './scene.js';
export { Tracer } from './firstHit.js';
export {
  BIN_S,
  traceRays,
  type RayGroup,
  type RayRequest,
  type TracedReceiver,
  type TracedSource,
} from './traceRays.js';
export {
  energyOverTime,
  heardAt,
  mirroredArrivals,
  type Arrival,
  type Heard,
  type HeardRequest,
} from './heard.js';
export {
  ENERGY_FIGURES,
  energyFigures,
  figuresOf,
  NOTICEABLE,
  speechIndexOf,
  type EnergyFigures,
} from './energyFigures.js';
export { inNoticeable, sureFigures, type SureFigures } from './figureErrors.js';
