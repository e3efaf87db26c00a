import parserClass, {
  type DxfParser,
  type I3DfaceEntity,
  type IArcEntity,
  type IBlock,
  type ICircleEntity,
  type IDxf,
  type IEllipseEntity,
  type IEntity,
  type IInsertEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type IPoint,
  type IPolylineEntity,
  type ISolidEntity,
  type ISplineEntity,
} from 'dxf-parser';
import { FormatError, textOfBytes } from '../formats/index.js';
import { arcPoints, bulgePoints, ellipsePoints, splinePoints } from './dxfCurves.js';
import { checkedModel, MOST_LINE_POINTS, MOST_TRIANGLES, needFewer, type Model } from './model.js';

/** The package's types tell of a module, its file for Node.js is the class itself. */
const Parser = parserClass as unknown as typeof DxfParser;

/** Metres in a unit by the header variable $INSUNITS (DXF reference). */
const INSUNITS: Record<number, number> = {
  1: 0.0254,
  2: 0.3048,
  3: 1609.344,
  4: 0.001,
  5: 0.01,
  6: 1,
  7: 1000,
  8: 2.54e-8,
  9: 2.54e-5,
  10: 0.9144,
  13: 1e-6,
  14: 0.1,
  15: 10,
  16: 100,
};
/** Blocks that hold blocks are followed so far. */
const DEEPEST = 12;

type Place3 = (x: number, y: number, z: number) => [number, number, number];
const asDrawn: Place3 = (x, y, z) => [x, y, z];

/** Group codes of a circle by the part of it that they tell; the package's own reader passes over its plane. */
const CIRCLE_CODES: Record<number, (e: Partial<PlanedCircle>, value: never) => void> = {
  8: (e, layer: string) => (e.layer = layer),
  10: (e, x: number) => (e.center = { ...NOWHERE, ...e.center, x }),
  20: (e, y: number) => (e.center = { ...NOWHERE, ...e.center, y }),
  30: (e, z: number) => (e.center = { ...NOWHERE, ...e.center, z }),
  40: (e, radius: number) => (e.radius = radius),
  67: (e, flag: number) => (e.inPaperSpace = Number(flag) !== 0),
  210: (e, v: number) => (e.extrusionDirectionX = v),
  220: (e, v: number) => (e.extrusionDirectionY = v),
  230: (e, v: number) => (e.extrusionDirectionZ = v),
};
const NOWHERE = { x: NaN, y: NaN, z: 0 };
type PlanedCircle = ICircleEntity &
  Pick<IArcEntity, 'extrusionDirectionX' | 'extrusionDirectionY' | 'extrusionDirectionZ'>;
interface Groups {
  next(): { code: number; value: unknown };
  isEOF(): boolean;
}
class CircleInItsPlane {
  ForEntityName = 'CIRCLE';
  parseEntity(scanner: Groups, { value }: { value: unknown }): Partial<PlanedCircle> {
    const entity = { type: value as string };
    for (let group = scanner.next(); group.code !== 0 && !scanner.isEOF(); group = scanner.next())
      CIRCLE_CODES[group.code]?.(entity, group.value as never);
    return entity;
  }
}

interface Found {
  triangles: Map<string, number[]>;
  lines: { name: string; points: number[]; isClosed: boolean }[];
  left: Map<string, number>;
  numbers: number;
}

/**
 * Reads a DXF text file: lines, polylines with their arcs, circles, ellipses, splines, faces, meshes, and blocks where they are
 * put. Each takes the name of its layer; z points up.
 * @throws FormatError when it is none, is binary, or has more than is taken
 */
export function readDxf(bytes: Uint8Array): Model {
  const text = textOfBytes(bytes);
  if (text.startsWith('AutoCAD Binary'))
    throw new FormatError('The DXF file is a binary one. Save it as DXF text.');
  if (!/^\s*0\s*\r?\nSECTION/m.test(text))
    throw new FormatError('The file is not DXF: it has no section. Save it as DXF text.');
  if (!/^\s*0\s*\r?\nEOF\s*$/m.test(text.slice(-2000)))
    throw new FormatError('The DXF file is cut off: its end is missing. Save or copy it again.');
  needFewer(text.split(/\n\s*0\s*\r?\n3DFACE/).length - 1);
  let dxf: IDxf | null;
  try {
    const parser = new Parser();
    parser.registerEntityHandler(CircleInItsPlane as never);
    dxf = parser.parseSync(text);
  } catch {
    throw new FormatError('The DXF file is damaged or cut off. Save or copy it again.');
  }
  if (!dxf?.entities) throw new FormatError('The DXF file holds nothing that is drawn.');
  const found: Found = { triangles: new Map(), lines: [], left: unknownKinds(text), numbers: 0 };
  const { blocks = {} } = dxf;
  const kept = dxf.entities.filter((e) => !e.inPaperSpace);
  if (kept.length < dxf.entities.length)
    count(found, 'things on paper sheets', dxf.entities.length - kept.length);
  for (const entity of kept) take(found, entity, asDrawn, blocks, 0);
  const unit = dxf.header?.['$INSUNITS'];
  return checkedModel({
    format: 'DXF',
    surfaces: [...found.triangles].map(([name, t]) => ({ name, triangles: Float64Array.from(t) })),
    lines: found.lines.map((l) => ({ ...l, points: Float64Array.from(l.points) })),
    unitM: (typeof unit === 'number' ? INSUNITS[unit] : undefined) ?? null,
    up: 'z',
    left: [...found.left].map(([what, n]) => ({ what, count: n })),
  });
}

const count = ({ left }: Found, what: string, n = 1): void => {
  left.set(what, (left.get(what) ?? 0) + n);
};

/** What is written of kinds that the parser passes over, and what of them is. */
const KNOWN = new Set(
  (
    'SECTION ENDSEC EOF TABLE ENDTAB BLOCK ENDBLK VERTEX SEQEND ATTRIB CLASS LAYER LTYPE STYLE VPORT VIEW UCS APPID DIMSTYLE ' +
    'BLOCK_RECORD 3DFACE ARC ATTDEF CIRCLE DIMENSION ELLIPSE INSERT LINE LWPOLYLINE MTEXT POINT POLYLINE SOLID SPLINE TEXT VIEWPORT'
  ).split(' '),
);
function unknownKinds(text: string): Map<string, number> {
  const kinds = new Map<string, number>();
  const from = text.search(/^\s*2\s*\r?\nENTITIES/m);
  const part = from < 0 ? '' : text.slice(from, endOfSection(text, from));
  for (const [, kind] of part.matchAll(/^[ \t]*0[ \t]*\r?\n[ \t]*((?:3D)?[A-Z][A-Z0-9_]*)/gm))
    if (!KNOWN.has(kind!)) kinds.set(kind!, (kinds.get(kind!) ?? 0) + 1);
  return kinds;
}
const endOfSection = (text: string, from: number) => {
  const end = text.indexOf('ENDSEC', from);
  return end < 0 ? text.length : end;
};

/** What a thing is drawn in: the world, or for an extrusion straight down its mirror image (DXF reference, arbitrary axis). */
function planeOf(entity: IEntity): Place3 | null {
  const e = entity as Partial<ILwpolylineEntity & { extrusionDirection: IPoint }>;
  const x = e.extrusionDirection?.x ?? e.extrusionDirectionX ?? 0;
  const y = e.extrusionDirection?.y ?? e.extrusionDirectionY ?? 0;
  const z = e.extrusionDirection?.z ?? e.extrusionDirectionZ ?? 1;
  if (Math.abs(x) > 1e-6 || Math.abs(y) > 1e-6) return null;
  return z < 0 ? (px, py, pz) => [-px, py, -pz] : asDrawn;
}

function take(
  found: Found,
  entity: IEntity,
  into: Place3,
  blocks: Record<string, IBlock>,
  depth: number,
): void {
  const name = entity.layer || '0';
  const line = (flat: number[], isClosed: boolean, through: Place3 = asDrawn) => {
    const points: number[] = [];
    for (let i = 0; i + 2 < flat.length; i += 3)
      points.push(...into(...through(flat[i]!, flat[i + 1]!, flat[i + 2]!)));
    found.numbers += points.length;
    // blocks in blocks multiply: ended before memory is
    if (found.numbers > 3 * MOST_LINE_POINTS + 9 * MOST_TRIANGLES)
      throw new FormatError(
        'The DXF file draws more than is taken. Save only the layers with walls, stage and seats.',
      );
    found.lines.push({ name, points, isClosed });
  };
  const face = (corners: IPoint[]) => {
    const flat = corners.map((c) => into(c.x, c.y, c.z ?? 0));
    const list = found.triangles.get(name) ?? [];
    for (let i = 1; i + 1 < flat.length; i++) list.push(...flat[0]!, ...flat[i]!, ...flat[i + 1]!);
    found.triangles.set(name, list);
    found.numbers += 9;
  };
  const plane = planeOf(entity);
  if (!plane && entity.type !== 'LINE' && entity.type !== '3DFACE' && entity.type !== 'SPLINE')
    return count(found, 'things in a tilted plane');
  const flat = plane ?? asDrawn;
  switch (entity.type) {
    case 'LINE':
      return line(
        (entity as ILineEntity).vertices.flatMap((v) => [v.x, v.y, v.z ?? 0]),
        false,
      );
    case 'LWPOLYLINE': {
      const e = entity as ILwpolylineEntity;
      return line(withBulges(e.vertices, e.shape, e.elevation ?? 0), e.shape, flat);
    }
    case 'POLYLINE':
      return polyline(found, entity as IPolylineEntity, line, face, flat);
    case 'CIRCLE': {
      const e = entity as ICircleEntity;
      return line(arcPoints(e.center, e.radius, 0, 2 * Math.PI).slice(0, -3), true, flat);
    }
    case 'ARC': {
      const e = entity as IArcEntity;
      const end = e.endAngle > e.startAngle ? e.endAngle : e.endAngle + 2 * Math.PI;
      return line(arcPoints(e.center, e.radius, e.startAngle, end), false, flat);
    }
    case 'ELLIPSE': {
      const e = entity as IEllipseEntity;
      const end = e.endAngle > e.startAngle ? e.endAngle : e.endAngle + 2 * Math.PI;
      const isWhole = end - e.startAngle > 2 * Math.PI - 1e-6;
      const points = ellipsePoints(e.center, e.majorAxisEndPoint, e.axisRatio, e.startAngle, end);
      return line(isWhole ? points.slice(0, -3) : points, isWhole);
    }
    case 'SPLINE': {
      const e = entity as ISplineEntity;
      const points = splinePoints(e.controlPoints ?? [], e.knotValues ?? [], e.degreeOfSplineCurve);
      if (points.length === 0) return count(found, 'splines without control points');
      return line(points, false);
    }
    case '3DFACE':
      return face(distinct((entity as I3DfaceEntity).vertices));
    case 'SOLID': {
      // its third and fourth corners are the other way round
      const [a, b, c, d] = (entity as ISolidEntity).points;
      return face(distinct([a, b, d ?? c, c].filter((p) => p !== undefined)));
    }
    case 'INSERT':
      return insert(found, entity as IInsertEntity, into, flat, blocks, depth);
    case 'TEXT':
    case 'MTEXT':
    case 'ATTDEF':
      return count(found, 'texts');
    case 'DIMENSION':
      return count(found, 'dimensions');
    case 'POINT':
      return count(found, 'points');
    case 'VIEWPORT':
      return;
    default:
      return count(found, entity.type);
  }
}

/** Corners that are there, and differ from the one before. */
function distinct(corners: IPoint[]): IPoint[] {
  const there = corners.filter((c) => c.x !== undefined);
  return there.filter((c, i) => {
    const before = there[i - 1] ?? there.at(-1)!;
    return (
      there.length < 3 || i === 0 || c.x !== before.x || c.y !== before.y || (c.z ?? 0) !== (before.z ?? 0)
    );
  });
}

function withBulges(
  vertices: { x: number; y: number; bulge?: number }[],
  isClosed: boolean,
  z: number,
): number[] {
  return vertices.flatMap((a, i) => {
    const b = vertices[i + 1] ?? (isClosed ? vertices[0] : undefined);
    const between = b && a.bulge ? bulgePoints(a, b, a.bulge) : [];
    return [a.x, a.y, z, ...between.flatMap(([x, y]) => [x, y, z])];
  });
}

/** Old polylines: flat ones, those in space, and meshes, whose faces name their corners. */
function polyline(
  found: Found,
  e: IPolylineEntity,
  line: (flat: number[], isClosed: boolean, through?: Place3) => void,
  face: (corners: IPoint[]) => void,
  plane: Place3,
): void {
  if (e.is3dPolygonMesh) return count(found, 'polygon meshes');
  if (!e.isPolyfaceMesh) {
    const isFlat = !e.is3dPolyline;
    const z = e.vertices[0]?.z ?? 0;
    const points = isFlat
      ? withBulges(e.vertices, e.shape, z)
      : e.vertices.flatMap((v) => [v.x, v.y, v.z ?? 0]);
    return line(points, e.shape, isFlat ? plane : asDrawn);
  }
  const corners = e.vertices.filter((v) => v.faceA === undefined);
  for (const v of e.vertices) {
    if (v.faceA === undefined) continue;
    // from 1; negative where the edge that begins there is hidden; 0 where there is none
    const named = [v.faceA, v.faceB, v.faceC, v.faceD].filter((n) => n);
    face(named.map((n) => corners[Math.abs(n) - 1] ?? { x: NaN, y: NaN, z: NaN }));
  }
}

/** A block where it is put, as often as it is. */
function insert(
  found: Found,
  e: IInsertEntity,
  into: Place3,
  plane: Place3,
  blocks: Record<string, IBlock>,
  depth: number,
): void {
  const block = blocks[e.name];
  if (!block?.entities) return count(found, 'blocks that are not in the file');
  if (depth >= DEEPEST) return count(found, 'blocks within blocks, too deep');
  const [sx, sy, sz] = [e.xScale ?? 1, e.yScale ?? 1, e.zScale ?? 1];
  const turn = ((e.rotation ?? 0) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const base = block.position ?? { x: 0, y: 0, z: 0 };
  const [columns, rows] = [Math.max(1, e.columnCount || 1), Math.max(1, e.rowCount || 1)];
  if (columns * rows > 10_000) return count(found, 'blocks repeated too often');
  for (let c = 0; c < columns; c++)
    for (let r = 0; r < rows; r++) {
      const put: Place3 = (x, y, z) => {
        const [bx, by] = [
          sx * (x - base.x) + c * (e.columnSpacing || 0),
          sy * (y - base.y) + r * (e.rowSpacing || 0),
        ];
        return into(
          ...plane(
            e.position.x + cos * bx - sin * by,
            e.position.y + sin * bx + cos * by,
            (e.position.z ?? 0) + sz * (z - (base.z ?? 0)),
          ),
        );
      };
      // what lies on layer 0 of a block takes the layer that the block is put on
      for (const inner of block.entities)
        take(
          found,
          inner.layer === '0' && e.layer ? { ...inner, layer: e.layer } : inner,
          put,
          blocks,
          depth + 1,
        );
    }
}
