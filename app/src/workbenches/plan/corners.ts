import type { Corner } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import { WALLS } from '../../drawing';

/** The outline that a corner belongs to, by the corner's id (owner and number), and which of it. */
export function ownerOf(place: Place, id: string): { owner: string; nth: number; outline: Corner[] } {
  const at = id.lastIndexOf(' ');
  const owner = id.slice(0, at);
  const outline =
    owner === WALLS ? place.shape.outline : (place.audience.find((a) => a.id === owner)?.outline ?? []);
  return { owner, nth: Number(id.slice(at + 1)), outline };
}

/** Sets the corners of an outline; walls go with theirs. */
export function withOutline(
  place: Place,
  owner: string,
  outline: Corner[],
  walls = place.shape.walls,
): Place {
  if (owner === WALLS) return { ...place, shape: { ...place.shape, outline, walls } };
  return { ...place, audience: place.audience.map((a) => (a.id === owner ? { ...a, outline } : a)) };
}

const mm = ({ x, y }: Corner): Corner => ({ x: Math.round(1000 * x) / 1000, y: Math.round(1000 * y) / 1000 });

export function withCorner(place: Place, id: string, to: Corner): Place {
  const { owner, nth, outline } = ownerOf(place, id);
  return withOutline(
    place,
    owner,
    outline.map((c, i) => (i === nth ? mm(to) : c)),
  );
}

/** A corner more, in the middle of the side that begins at one; both halves of a wall are what it was. */
export function withCornerAfter(place: Place, id: string): Place {
  const { owner, nth, outline } = ownerOf(place, id);
  const [a, b] = [outline[nth]!, outline[(nth + 1) % outline.length]!];
  const middle = mm({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
  const { walls } = place.shape;
  const wall = walls[nth];
  return withOutline(
    place,
    owner,
    outline.toSpliced(nth + 1, 0, middle),
    owner === WALLS && wall ? walls.toSpliced(nth + 1, 0, { ...wall }) : walls,
  );
}

/** A corner less; three are the least. */
export function withoutCorner(place: Place, id: string): Place {
  const { owner, nth, outline } = ownerOf(place, id);
  if (outline.length <= 3) return place;
  const { walls } = place.shape;
  return withOutline(
    place,
    owner,
    outline.toSpliced(nth, 1),
    owner === WALLS ? walls.toSpliced(nth, 1) : walls,
  );
}
