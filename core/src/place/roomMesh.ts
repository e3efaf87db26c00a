import type { Point } from '../geometry/index.js';
import { facetArea, facetsOf, shapeVolume, type Face, type Facet, type Shape } from './shape.js';
import { surfacesOf, withSurface, type Surface, type SurfaceKey } from './surfaces.js';

/** A room as somebody else drew it: flat faces, each of a surface with a name. */
export interface RoomMesh {
  name: string;
  surfaces: Face[];
  faces: { surface: number; corners: Point[] }[];
  /** cubic metres */
  volume: number;
}

/** What is modelled of a place: the room as drawn, or a mesh in its place. */
export interface ModelledRoom {
  shape: Shape;
  roomMesh?: RoomMesh | null;
}

/** A face, and which surface it is of. */
export interface RoomFacet extends Facet {
  key: SurfaceKey;
}

/** More upright than this a face of a mesh is a wall: the cosine between its normal and the upright. */
const WALL = 0.7;

const meshKey = (index: number): SurfaceKey => `mesh ${index}`;

/** All faces of the room that is modelled. */
export function roomFacets({ shape, roomMesh }: ModelledRoom): RoomFacet[] {
  if (!roomMesh) return facetsOf(shape).map((f, i) => ({ ...f, key: f.kind === 'wall' ? i - 1 : f.kind }));
  const heights = roomMesh.faces.flatMap((f) => f.corners.map((c) => c.z));
  const middle = (Math.min(...heights) + Math.max(...heights)) / 2;
  return roomMesh.faces.map(({ surface, corners }) => ({
    ...roomMesh.surfaces[surface]!,
    kind: kindOf(corners, middle),
    corners,
    key: meshKey(surface),
  }));
}

function kindOf(corners: readonly Point[], middle: number): Facet['kind'] {
  const level = facetArea({ corners: corners.map((c) => ({ ...c, z: 0 })) });
  if (level < WALL * facetArea({ corners: [...corners] })) return 'wall';
  return corners.reduce((sum, c) => sum + c.z, 0) / corners.length < middle ? 'floor' : 'roof';
}

/** Its surfaces, each with its area. */
export function roomSurfaces(room: ModelledRoom): Surface[] {
  const { roomMesh } = room;
  if (!roomMesh) return surfacesOf(room.shape);
  return roomMesh.surfaces.map((face, i) => ({
    ...face,
    key: meshKey(i),
    area: roomMesh.faces.reduce((sum, f) => sum + (f.surface === i ? facetArea(f) : 0), 0),
  }));
}

/** The same with one surface changed. */
export function withRoomSurface<Room extends ModelledRoom>(
  room: Room,
  key: SurfaceKey,
  change: (face: Face) => Face,
): Room {
  const { roomMesh } = room;
  if (typeof key !== 'string' || !key.startsWith('mesh '))
    return { ...room, shape: withSurface(room.shape, key, change) };
  return roomMesh
    ? {
        ...room,
        roomMesh: {
          ...roomMesh,
          surfaces: roomMesh.surfaces.map((face, i) => (meshKey(i) === key ? change(face) : face)),
        },
      }
    : room;
}

/** Cubic metres of it; 0 in the open. */
export const roomVolume = ({ shape, roomMesh }: ModelledRoom): number =>
  roomMesh ? roomMesh.volume : shape.isEnclosed ? shapeVolume(shape) : 0;

/** What the surfaces of a mesh swallow until somebody says: as floor, roof and walls of the room as drawn do. */
export function startingFaces(shape: Shape, names: readonly string[], faces: RoomMesh['faces']): Face[] {
  const heights = faces.flatMap((f) => f.corners.map((c) => c.z));
  const middle = (Math.min(...heights) + Math.max(...heights)) / 2;
  return names.map((name, i) => {
    const areas = { wall: 0, floor: 0, roof: 0 };
    for (const { surface, corners } of faces)
      if (surface === i) areas[kindOf(corners, middle)] += facetArea({ corners });
    const kind = (['wall', 'floor', 'roof'] as const).reduce((a, b) => (areas[b] > areas[a] ? b : a));
    const like = kind === 'wall' ? (shape.walls[0] ?? shape.floor) : shape[kind];
    return { ...like, name: name.trim().slice(0, 60) || `Surface ${i + 1}` };
  });
}
