import { roomSurfaces, withRoomSurface, type ModelledRoom } from './roomMesh.js';
import type { Face } from './shape.js';

type Made = Pick<Face, 'absorption' | 'scattering' | 'material'>;

/** What the surfaces of a room are made of, kept under a name: to be gone back to, or modelled beside another. */
export interface SurfaceVariant {
  id: string;
  name: string;
  /** the mesh that it is of, by its name; null for the room as drawn */
  mesh: string | null;
  /** of each surface, in the order of `roomSurfaces` */
  surfaces: Made[];
}

const madeOf = ({ absorption, scattering, material }: Made): Made => ({
  absorption: [...absorption] as Made['absorption'],
  scattering: [...scattering] as Made['scattering'],
  material,
});

/** The surfaces as they are now, as a variant. */
export const surfacesAsVariant = (room: ModelledRoom, id: string, name: string): SurfaceVariant => ({
  id,
  name,
  mesh: room.roomMesh?.name ?? null,
  surfaces: roomSurfaces(room).map(madeOf),
});

/** Whether a variant can be that of a room: for every surface it says what it is made of. */
export const fitsRoom = (room: ModelledRoom, { mesh, surfaces }: SurfaceVariant): boolean =>
  (room.roomMesh?.name ?? null) === mesh && roomSurfaces(room).length === surfaces.length;

/** Whether the surfaces of a room are what a variant says. */
export function isOfVariant(room: ModelledRoom, variant: SurfaceVariant): boolean {
  if (!fitsRoom(room, variant)) return false;
  return roomSurfaces(room).every((face, i) => {
    const { absorption, scattering, material } = variant.surfaces[i]!;
    const same = (a: readonly number[], b: readonly number[]) => a.every((v, o) => v === b[o]);
    return (
      face.material === material && same(face.absorption, absorption) && same(face.scattering, scattering)
    );
  });
}

/**
 * The room with its surfaces as a variant has them.
 * @throws RangeError where it says nothing of some of them
 */
export function withVariant<Room extends ModelledRoom>(room: Room, variant: SurfaceVariant): Room {
  if (!fitsRoom(room, variant))
    throw new RangeError(
      `${variant.name} is of a room with other surfaces: keep this one as another variant.`,
    );
  return roomSurfaces(room).reduce(
    (now, { key }, i) => withRoomSurface(now, key, (face) => ({ ...face, ...madeOf(variant.surfaces[i]!) })),
    room,
  );
}
