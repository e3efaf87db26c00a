import { describe, expect, it } from 'vitest';
import { newPlace } from '../project/index.js';
import {
  roomFacets,
  roomSurfaces,
  roomVolume,
  startingFaces,
  surfacesOf,
  withRoomSurface,
  type RoomMesh,
} from './index.js';

const { shape } = newPlace({ name: 'P', kind: 'hall', size: { x: 6, y: 4, z: 3 }, layoutId: 'none' });
const at = (x: number, y: number, z: number) => ({ x, y, z });
const faces: RoomMesh['faces'] = [
  { surface: 0, corners: [at(0, 0, 0), at(5, 0, 0), at(5, 4, 0), at(0, 4, 0)] },
  { surface: 1, corners: [at(0, 0, 3), at(5, 0, 3), at(5, 4, 3), at(0, 4, 3)] },
  { surface: 2, corners: [at(0, 0, 0), at(5, 0, 0), at(5, 0, 3), at(0, 0, 3)] },
  { surface: 2, corners: [at(0, 4, 0), at(5, 4, 0), at(5, 4, 3), at(0, 4, 3)] },
];
const names = ['Boards', 'Ceiling', ''];
const roomMesh: RoomMesh = {
  name: 'A mesh',
  surfaces: startingFaces(shape, names, faces),
  faces,
  volume: 60,
};

describe('the room that is modelled', () => {
  it('is as drawn where there is no mesh', () => {
    expect(roomSurfaces({ shape })).toEqual(surfacesOf(shape));
    expect(roomVolume({ shape })).toBeCloseTo(72, 9);
    expect(roomFacets({ shape }).map((f) => f.key)).toEqual(['floor', 0, 1, 2, 3, 'roof']);
  });
  it('is the mesh where there is one: its surfaces by name with their areas, its volume', () => {
    const room = { shape, roomMesh };
    expect(roomSurfaces(room).map((s) => [s.key, s.name, s.area])).toEqual([
      ['mesh 0', 'Boards', 20],
      ['mesh 1', 'Ceiling', 20],
      ['mesh 2', 'Surface 3', 30],
    ]);
    expect(roomFacets(room).map((f) => f.kind)).toEqual(['floor', 'roof', 'wall', 'wall']);
    expect(roomVolume(room)).toBe(60);
    // until somebody says what it is made of, it swallows as what is drawn there does
    expect(roomMesh.surfaces[1]!.absorption).toEqual(shape.roof.absorption);
    expect(roomMesh.surfaces[2]!.absorption).toEqual(shape.walls[0]!.absorption);
  });
  it('changes one surface and leaves the others alone', () => {
    const room = withRoomSurface({ shape, roomMesh }, 'mesh 2', (f) => ({ ...f, material: 'Brick' }));
    expect(room.roomMesh!.surfaces.map((s) => s.material)).toEqual([null, null, 'Brick']);
    const drawn = withRoomSurface({ shape }, 'roof', (f) => ({ ...f, material: 'Timber' }));
    expect(drawn.shape.roof.material).toBe('Timber');
  });
});
