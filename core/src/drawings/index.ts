/** What others have drawn: models and pictures of a place, to be laid under its plan. */
export { examineModel, type ExaminedModel, type Taken } from './examine.js';
export {
  DRAWING_UNITS,
  laidAt,
  laidOutline,
  likelyUnitM,
  likelyUp,
  modelBounds,
  MOST_LINE_POINTS,
  MOST_TRIANGLES,
  placedModel,
  triangleCount,
  type DrawnLine,
  type DrawnSurface,
  type Model,
  type ModelPose,
  type Up,
} from './model.js';
export { drawnEdges, modelReport, MOST_DRAWN_EDGES, type ModelReport } from './modelReport.js';
export { outlineOf, type FoundOutline } from './outlineOf.js';
export { isPictureName, PICTURE_ENDINGS, pictureSize, type PictureType } from './pictureSize.js';
export { isModelName, MODEL_ENDINGS, readModel } from './readModel.js';
