import { withSurface, type Face, type SurfaceKey } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';

/** Changes the place, undoably. */
export const changePlace = (label: string, change: (place: Place) => Place) =>
  changeProject(label, (p) => ({ ...p, place: change(p.place) }));

/** Changes one surface of the place, undoably. */
export const changeSurface = (label: string, key: SurfaceKey, change: (face: Face) => Face) =>
  changePlace(label, (place) => ({ ...place, shape: withSurface(place.shape, key, change) }));
