import type { Point } from '../geometry/index.js';
import { seatsOrNone, type AudienceArea } from './audience.js';
import type { Shape } from './shape.js';

/** A seat of the place: one by itself, or one in a row of an area. */
export interface PlacedSeat {
  name: string;
  /** the row that it belongs to, in its area; null for a seat by itself */
  row: string | null;
  /** of the audience area that it belongs to; null for a seat by itself */
  areaId: string | null;
  position: Point;
}

/** All seats of a place, those by themselves first; of more than `most` every so manieth. */
export function seatsOfPlace(
  {
    shape,
    audience,
    seats,
  }: {
    shape: Pick<Shape, 'floorRise'>;
    audience: readonly AudienceArea[];
    seats: readonly { name: string; position: Point }[];
  },
  most: number,
): PlacedSeat[] {
  const all = [
    ...seats.map(({ name, position }) => ({ name, position, row: null, areaId: null })),
    ...audience.flatMap((a) =>
      seatsOrNone(a, shape).map(({ name, row, position }) => ({
        name,
        position,
        row: `${a.id} ${row}`,
        areaId: a.id,
      })),
    ),
  ];
  const every = Math.max(1, Math.ceil(all.length / most));
  return all.filter((_, i) => i % every === 0);
}
