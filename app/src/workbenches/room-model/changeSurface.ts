import { MATERIALS, type Material } from '@pebble-hall/core/materials';
import { withRoomSurface, type Face, type Surface, type SurfaceKey } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';

/** Changes the place, undoably. */
export const changePlace = (label: string, change: (place: Place) => Place) =>
  changeProject(label, (p) => ({ ...p, place: change(p.place) }));

/** Changes one surface of the place, undoably. */
export const changeSurface = (label: string, key: SurfaceKey, change: (face: Face) => Face) =>
  changePlace(label, (place) => withRoomSurface(place, key, change));

/** Makes a surface of a material, one's own or of the library; of none, it keeps its numbers. */
export function makeOf(
  { materials }: Pick<Place, 'materials'>,
  surface: Pick<Surface, 'key' | 'name'>,
  name: string,
): void {
  const all: readonly Pick<Material, 'name' | 'absorption' | 'scattering'>[] = [...materials, ...MATERIALS];
  const material = all.find((m) => m.name === name);
  void changeSurface(`${surface.name}: ${name || 'its own numbers'}`, surface.key, (face) =>
    material
      ? { ...face, absorption: material.absorption, scattering: material.scattering, material: name }
      : { ...face, material: null },
  );
}
