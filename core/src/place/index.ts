/** The place as drawn: its shape, where people sit, loudspeakers that act as one. */
export {
  boxWalls,
  extentOf,
  facetArea,
  facetsOf,
  floorArea,
  floorAt,
  floorPlane,
  plainFace,
  rectangle,
  RECTANGLE_WALLS,
  roofAt,
  roofPlanes,
  shapeVolume,
  type Ceiling,
  type Face,
  type Facet,
  type Shape,
} from './shape.js';
export {
  EAR_M,
  earHeightAt,
  MOST_SEATS,
  seatsOf,
  seatsOrNone,
  type AreaSeat,
  type AudienceArea,
} from './audience.js';
export { FINISHES, type Finish } from './finishes.js';
export { boxesOf, freeBoxesOf, nearestM, type Box, type FreeBox, type Group, type Grouped } from './group.js';
export { snapped, type Guide, type SnapTo } from './snap.js';
export { intoRoom } from './intoRoom.js';
export { drawnShape } from './drawnShape.js';
export { seatsOfPlace, type PlacedSeat } from './seatsOfPlace.js';
export { endFireStepMs, GRADIENT_PATTERNS, gradientDelayMs, type GradientPattern } from './patterns.js';
export { surfacesOf, withSurface, type Surface, type SurfaceKey } from './surfaces.js';
export {
  roomFacets,
  roomSurfaces,
  roomVolume,
  startingFaces,
  withRoomSurface,
  type ModelledRoom,
  type RoomFacet,
  type RoomMesh,
} from './roomMesh.js';
export {
  fitsRoom,
  isOfVariant,
  surfacesAsVariant,
  withVariant,
  type SurfaceVariant,
} from './surfaceVariants.js';
