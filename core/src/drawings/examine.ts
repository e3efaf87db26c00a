import type { Point } from '../geometry/index.js';
import { likelyUnitM, likelyUp, modelBounds, placedModel, type Model, type Up } from './model.js';
import { drawnEdges, modelReport, openEnds, type ModelReport } from './modelReport.js';
import { outlineOf, type FoundOutline } from './outlineOf.js';

/** How a model is taken: null leaves it to what its file says, or what fits a place. */
export interface Taken {
  unitM: number | null;
  up: Up | null;
}

/**
 * A model as it is taken: in metres, z up, not turned, the middle of its lowest level at the origin. Only lists of single
 * precision are large.
 */
export interface ExaminedModel {
  format: Model['format'];
  unitM: number;
  up: Up;
  /** what of these the file itself says */
  said: Taken;
  left: Model['left'];
  report: ModelReport;
  /** its extent along each axis */
  size: Point;
  outline: FoundOutline | null;
  /** both ends of each edge that is drawn, six numbers */
  ends: Float32Array;
  /** both ends of each edge at which a mesh is open, likewise */
  openEnds: Float32Array;
  /** how many edges there are; more than are drawn where there are too many */
  edges: number;
  /** all faces, nine numbers each */
  triangles: Float32Array;
}

/** What a model is, and what is drawn of it. */
export function examineModel(model: Model, taken: Taken): ExaminedModel {
  const unitM = taken.unitM ?? model.unitM ?? likelyUnitM(model);
  const up = taken.up ?? model.up ?? likelyUp(model);
  const { least, most } = modelBounds(model, up);
  const placed = placedModel(model, { up, unitM, turnDeg: 0, at: { x: 0, y: 0, z: 0 } });
  const { ends, of } = drawnEdges(placed);
  const triangles = new Float32Array(placed.surfaces.reduce((sum, s) => sum + s.triangles.length, 0));
  let at = 0;
  for (const s of placed.surfaces) {
    triangles.set(s.triangles, at);
    at += s.triangles.length;
  }
  return {
    format: model.format,
    unitM,
    up,
    said: { unitM: model.unitM, up: model.up },
    left: model.left,
    report: modelReport(placed),
    size: {
      x: unitM * (most.x - least.x),
      y: unitM * (most.y - least.y),
      z: unitM * (most.z - least.z),
    },
    outline: outlineOf(placed),
    ends,
    openEnds: openEnds(placed),
    edges: of,
    triangles,
  };
}
