/** Sound as rays in a room of flat faces: what they meet, and what they bring where. */
export { sceneOf, type Scene, type TracedFace } from './scene.js';
export { Tracer } from './firstHit.js';
export {
  BIN_S,
  traceRays,
  type RayGroup,
  type RayRequest,
  type Row,
  type TracedReceiver,
  type TracedSource,
} from './traceRays.js';
export {
  energyOverTime,
  heardAt,
  heardInTurn,
  mirroredArrivals,
  type Arrival,
  type Heard,
  type HeardInTurn,
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
export {
  EMISSION_COLUMNS,
  EMISSION_ROWS,
  emissionDirections,
  emissionInto,
  emissionOf,
  type Emission,
} from './emission.js';
export { heardTogether, heardTogetherInTurn, type HeardPart } from './heardTogether.js';
export { checkFaces, type CheckedPoint, type ModelFault } from './checkFaces.js';
export {
  directionIn,
  evennessOf,
  MIDDLE_OCTAVES,
  SECTORS,
  sectorOf,
  STRETCHES_S,
  stretchOf,
} from './sectors.js';
export { directionsHeard, evennessHeard } from './directionsHeard.js';
export { mendMesh, type MendedFace, type MendedMesh, type MeshSurface } from './mendMesh.js';
export { planeThrough } from './triangles.js';
export type { DirectionEnergies } from './directionTable.js';
