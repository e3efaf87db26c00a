/** What circuits do to a signal: as shapes with printed figures, made, and read from curves. */
export {
  FILTER_FAMILIES,
  MOST_ORDER,
  SHAPE_KINDS,
  STEEPEST_Q,
  type AllPassShape,
  type FilterFamily,
  type PassShape,
  type PeakingShape,
  type Shape,
  type ShapeKind,
  type ShelfShape,
} from './shape.js';
export { besselPolynomial, poleFactors, type PoleFactor } from './poles.js';
export { octavesOfQ, qOfOctaves } from './bandwidth.js';
export { needShape, shapeTrace, undershootDb } from './shapeTrace.js';
export { readShapes } from './readShapes.js';
export type { FoundShape, ReadCurve, ReadOptions, ShapeErrors, ShapeReading } from './reading.js';
export type { WantedShape } from './wanted.js';
export {
  comparePublished,
  type FigureRow,
  type FigureTolerance,
  type FigureVerdict,
  type PublishedFigures,
} from './published.js';
export { mirrorApart, shapesLevelDb } from './mirror.js';
