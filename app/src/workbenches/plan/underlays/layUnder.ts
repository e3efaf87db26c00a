import { laidOutline, type ExaminedModel, type FoundOutline } from '@pebble-hall/core/drawings';
import { drawnShape, extentOf } from '@pebble-hall/core/place';
import type { EnclosedFile, Place, Underlay } from '@pebble-hall/core/project';
import { changeProject } from '../../../services/changeProject';

/** A file with a drawing, as it was opened. */
export interface OpenedFile {
  name: string;
  type: string;
  bytes: Uint8Array;
}

const plainName = (file: string) => file.replace(/\.[^.]+$/, '').slice(0, 60) || 'Drawing';

/** Where the middle of a drawing comes to lie so that its corner meets the corner of the place. */
const inTheCorner = ({ shape }: Pick<Place, 'shape'>, size: { x: number; y: number }) => {
  const { least } = extentOf(shape);
  const mm = (m: number) => Math.round(1000 * m) / 1000;
  return { x: mm(least.x + size.x / 2), y: mm(least.y + size.y / 2), z: 0 };
};

const common = (file: OpenedFile, place: Place, size: { x: number; y: number }) => ({
  id: crypto.randomUUID(),
  fileId: crypto.randomUUID(),
  name: plainName(file.name),
  isShown: true,
  turnDeg: 0,
  at: inTheCorner(place, size),
});

async function lay(
  file: OpenedFile,
  underlay: Underlay,
  change: (p: Place) => Place,
): Promise<string | null> {
  const enclosed: EnclosedFile = { ...file, id: underlay.fileId };
  const done = await changeProject(
    `${underlay.name} laid under the plan`,
    (p) => ({ ...p, place: change({ ...p.place, underlays: [...p.place.underlays, underlay] }) }),
    { enclosed: [enclosed] },
  );
  return done ? underlay.id : null;
}

/** Lays a picture under the plan. @returns its id; null where it could not be stored, which is told */
export const layPicture = (
  file: OpenedFile,
  place: Place,
  { width, height }: { width: number; height: number },
  metresPerPixel: number,
): Promise<string | null> =>
  lay(
    file,
    {
      ...common(file, place, { x: width * metresPerPixel, y: height * metresPerPixel }),
      kind: 'picture',
      widthPx: width,
      heightPx: height,
      metresPerPixel,
      opacity: 0.6,
    },
    (p) => p,
  );

/** Lays a model under the plan, and makes its outline the room's where that is asked for. @returns as above */
export function layModel(
  file: OpenedFile,
  place: Place,
  seen: ExaminedModel,
  becomesRoom: boolean,
): Promise<string | null> {
  const underlay: Underlay = {
    ...common(file, place, seen.size),
    kind: 'model',
    up: seen.up,
    unitM: seen.unitM,
  };
  return lay(file, underlay, (p) =>
    becomesRoom && seen.outline ? withItsOutline(p, underlay, seen.outline) : p,
  );
}

/** The place with the outline of a drawing that lies under it, where that lies. */
export const withItsOutline = (place: Place, laid: Underlay, { corners, above }: FoundOutline): Place => ({
  ...place,
  shape: drawnShape(place.shape, laidOutline(corners, laid), above),
});
