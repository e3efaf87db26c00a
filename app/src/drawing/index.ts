/** The one drawing of a place, used wherever a place is shown. */
export { PlaceDrawing, sizeText, WALLS, wholeOf, type PlaceDrawingProps, type Thing } from './PlaceDrawing';
export { projectionOf, VIEWS, type Projection, type View } from './projection';
export type { SeenUnderlay } from './UnderlayShape';
export { FOOT_M, lengthText, unitM } from './lengths';
export type { PlanLine, SpotState } from './Things';
