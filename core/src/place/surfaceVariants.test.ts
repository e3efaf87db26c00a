import { describe, expect, it } from 'vitest';
import { newPlace } from '../project/index.js';
import {
  fitsRoom,
  isOfVariant,
  roomSurfaces,
  startingFaces,
  surfacesAsVariant,
  withRoomSurface,
  withVariant,
  type RoomMesh,
} from './index.js';

const { shape } = newPlace({ name: 'P', kind: 'hall', size: { x: 6, y: 4, z: 3 }, layoutId: 'none' });
const room = { shape };
const soft = withRoomSurface(room, 2, (face) => ({
  ...face,
  absorption: face.absorption.map((a) => a + 0.3) as typeof face.absorption,
  material: 'Drape',
}));

describe('a variant of the surfaces', () => {
  it('brings each surface back to what it was, and nothing else', () => {
    const before = surfacesAsVariant(room, 'a', 'Bare');
    expect(isOfVariant(room, before)).toBe(true);
    expect(isOfVariant(soft, before)).toBe(false);
    expect(withVariant(soft, before)).toEqual(room);
    expect(withVariant(room, surfacesAsVariant(soft, 'b', 'Draped'))).toEqual(soft);
    const renamed = withRoomSurface(soft, 2, (face) => ({ ...face, name: 'Stage wall' }));
    expect(roomSurfaces(withVariant(renamed, before)).map((s) => s.name)).toContain('Stage wall');
  });

  it('is a copy: what is changed afterwards does not change it', () => {
    const kept = surfacesAsVariant(room, 'a', 'Bare');
    const was = structuredClone(kept);
    kept.surfaces.forEach((s, i) => expect(s.absorption).not.toBe(roomSurfaces(room)[i]!.absorption));
    withRoomSurface(room, 'floor', (face) => ({ ...face, material: 'Carpet' }));
    expect(kept).toEqual(was);
  });

  it('is refused where the room has other surfaces: another corner, or a mesh in its place', () => {
    const kept = surfacesAsVariant(room, 'a', 'Bare');
    const cornered = { shape: { ...shape, walls: [...shape.walls, shape.walls[0]!] } };
    cornered.shape.outline = [...shape.outline, { x: 0, y: 2 }];
    const at = (x: number, y: number, z: number) => ({ x, y, z });
    const faces: RoomMesh['faces'] = roomSurfaces(room).map((_, surface) => ({
      surface,
      corners: [at(0, 0, 0), at(5, 0, 0), at(5, 4, 0)],
    }));
    const names = faces.map((_, i) => `Part ${i}`);
    const meshed = {
      shape,
      roomMesh: { name: 'M', surfaces: startingFaces(shape, names, faces), faces, volume: 1 },
    };
    for (const other of [cornered, meshed]) {
      expect(fitsRoom(other, kept)).toBe(false);
      expect(() => withVariant(other, kept)).toThrow(/Bare is of a room with other surfaces/);
    }
    expect(isOfVariant(meshed, surfacesAsVariant(meshed, 'm', 'As drawn by others'))).toBe(true);
  });
});
