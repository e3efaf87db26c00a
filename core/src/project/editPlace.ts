import { freeOutput } from './freeOutput.js';
import type { Point } from '../geometry/index.js';
import { extentOf, type AudienceArea } from '../place/index.js';
import { abbreviated } from './migratePlace.js';
import { freeName } from './variants.js';
import type { Fixture, Loudspeaker, Place, Seat, Spot, Underlay } from './types.js';

/** How far something is moved, metres. */
export type Shift = Point;

const moved = (p: Point, by: Shift): Point => ({ x: mm(p.x + by.x), y: mm(p.y + by.y), z: mm(p.z + by.z) });
/** Positions are kept to the millimetre. */
const mm = (v: number) => Math.round(1000 * v) / 1000;

/** Changes everything of a place that is chosen by its id, each kind in its way; what is locked stays. */
function changed(
  place: Place,
  ids: ReadonlySet<string>,
  change: {
    loudspeaker: (l: Loudspeaker) => Loudspeaker;
    seat: (s: Seat) => Seat;
    spot: (s: Spot) => Spot;
    area: (a: AudienceArea) => AudienceArea;
    fixture: (f: Fixture) => Fixture;
    underlay: (u: Underlay) => Underlay;
  },
): Place {
  const each = <T extends { id: string }>(list: T[], apply: (item: T) => T): T[] =>
    list.some((item) => ids.has(item.id))
      ? list.map((item) => (ids.has(item.id) ? apply(item) : item))
      : list;
  return {
    ...place,
    loudspeakers: each(place.loudspeakers, (l) => (l.locked ? l : change.loudspeaker(l))),
    seats: each(place.seats, change.seat),
    spots: each(place.spots, change.spot),
    audience: each(place.audience, change.area),
    fixtures: each(place.fixtures, change.fixture),
    underlays: each(place.underlays, change.underlay),
  };
}

/** The place with what is chosen moved; loudspeakers that are locked stay. */
export const withMoved = (place: Place, ids: ReadonlySet<string>, by: Shift): Place => {
  const at = <T extends { position: Point }>(item: T): T => ({ ...item, position: moved(item.position, by) });
  return changed(place, ids, {
    loudspeaker: at,
    seat: at,
    spot: at,
    area: (a) => ({
      ...a,
      outline: a.outline.map((c) => ({ x: mm(c.x + by.x), y: mm(c.y + by.y) })),
      floorM: mm(a.floorM + by.z),
    }),
    fixture: (f) => ({
      ...f,
      x: mm(f.x + by.x),
      y: mm(f.y + by.y),
      bottom: mm(f.bottom + by.z),
      top: mm(f.top + by.z),
    }),
    underlay: (u) => ({ ...u, at: moved(u.at, by) }),
  });
};

/** The place without what is chosen; the home spot stays, as do loudspeakers that are locked. */
export function withoutThings(place: Place, ids: ReadonlySet<string>): Place {
  const left = <T extends { id: string }>(list: T[]) => list.filter((item) => !ids.has(item.id));
  const [home, ...spots] = place.spots;
  return {
    ...place,
    loudspeakers: place.loudspeakers.filter((l) => l.locked || !ids.has(l.id)),
    seats: left(place.seats),
    spots: [home!, ...left(spots)],
    audience: left(place.audience),
    fixtures: left(place.fixtures),
    underlays: left(place.underlays),
  };
}

/** Copies of all that is chosen, and their ids. @param change what is other in a copy */
function withCopies(
  place: Place,
  ids: ReadonlySet<string>,
  newId: () => string,
  change: (place: Place, copies: ReadonlySet<string>) => Place,
  nameOf: (name: string) => string,
): { place: Place; ids: Set<string> } {
  const copies = new Set<string>();
  const copied = <T extends { id: string; name: string }>(
    list: T[],
    more: (item: T, i: number) => T = (x) => x,
  ) => {
    const names = list.map((item) => item.name);
    const out = [...list];
    for (const item of list.filter((x) => ids.has(x.id))) {
      const id = newId();
      copies.add(id);
      const name = freeName(nameOf(item.name), names);
      names.push(name);
      out.push(more({ ...item, id, name }, out.length));
    }
    return out;
  };
  let loudspeakers = place.loudspeakers;
  for (const l of place.loudspeakers.filter((x) => ids.has(x.id))) {
    const id = newId();
    copies.add(id);
    const name = freeName(
      nameOf(l.name),
      loudspeakers.map((x) => x.name),
    );
    const copy = {
      ...l,
      id,
      name,
      abbreviation: abbreviated(name),
      output: freeOutput({ loudspeakers }),
      locked: false,
    };
    loudspeakers = [...loudspeakers, { ...copy, layoutLabel: null }];
  }
  const all: Place = {
    ...place,
    loudspeakers: loudspeakers.slice(0, 64),
    seats: copied(place.seats),
    spots: copied(place.spots),
    audience: copied(place.audience),
    fixtures: copied(place.fixtures),
  };
  return { place: change(all, copies), ids: copies };
}

/** The place with copies beside what is chosen. */
export const withDuplicates = (place: Place, ids: ReadonlySet<string>, newId: () => string, by: Shift) =>
  withCopies(
    place,
    ids,
    newId,
    (all, copies) => withMoved(all, copies, by),
    (name) => name,
  );

const OTHER_SIDE: [RegExp, string][] = [
  [/\bleft\b/, 'right'],
  [/\bLeft\b/, 'Right'],
  [/\bright\b/, 'left'],
  [/\bRight\b/, 'Left'],
];
/** The name of the same thing on the other side. */
export const mirroredName = (name: string): string => {
  const found = OTHER_SIDE.find(([from]) => from.test(name));
  return found ? name.replace(found[0], found[1]) : name;
};

/** The line along x in the middle of a place, y in metres. */
export function centreLine({ shape }: Pick<Place, 'shape'>): number {
  const { least, most } = extentOf(shape);
  return (least.y + most.y) / 2;
}

/** The place with mirrored copies of what is chosen, on the other side of its centre line. */
export function withMirrored(place: Place, ids: ReadonlySet<string>, newId: () => string) {
  const twice = 2 * centreLine(place);
  const over = <T extends { position: Point }>(item: T): T => ({
    ...item,
    position: { ...item.position, y: mm(twice - item.position.y) },
  });
  return withCopies(
    place,
    ids,
    newId,
    (all, copies) =>
      changed(all, copies, {
        loudspeaker: (l) => ({
          ...over(l),
          aimDeg: 0 - l.aimDeg,
          rollDeg: 0 - l.rollDeg,
          group:
            l.group?.kind === 'free'
              ? {
                  ...l.group,
                  boxes: l.group.boxes.map((b) => ({ ...b, left: 0 - b.left, yawDeg: 0 - b.yawDeg })),
                }
              : l.group,
        }),
        seat: over,
        spot: over,
        area: (a) => ({
          ...a,
          facingDeg: 0 - a.facingDeg,
          outline: a.outline.map((c) => ({ x: c.x, y: mm(twice - c.y) })).reverse(),
        }),
        fixture: (f) => ({ ...f, y: mm(twice - f.y - f.depth) }),
        // a drawing is not mirrored, and none is copied
        underlay: (u) => u,
      }),
    mirroredName,
  );
}

/** Where each chosen thing is that has a place of its own; areas by the middle of their corners. */
export function chosenPoints(place: Place, ids: ReadonlySet<string>): { id: string; at: Point }[] {
  const points = [...place.loudspeakers, ...place.seats, ...place.spots].map(({ id, position }) => ({
    id,
    at: position,
  }));
  const areas = place.audience.map(({ id, outline, floorM }) => ({
    id,
    at: {
      x: outline.reduce((s, c) => s + c.x, 0) / outline.length,
      y: outline.reduce((s, c) => s + c.y, 0) / outline.length,
      z: floorM,
    },
  }));
  const fixtures = place.fixtures.map((f) => ({
    id: f.id,
    at: { x: f.x + f.width / 2, y: f.y + f.depth / 2, z: f.bottom },
  }));
  const underlays = place.underlays.map(({ id, at }) => ({ id, at }));
  return [...points, ...areas, ...fixtures, ...underlays].filter(({ id }) => ids.has(id));
}

/** The place with all that is chosen in one line across an axis, at the mean of where they are. */
export function withAligned(place: Place, ids: ReadonlySet<string>, axis: keyof Point): Place {
  const points = chosenPoints(place, ids);
  if (points.length < 2) return place;
  const mean = points.reduce((sum, { at }) => sum + at[axis], 0) / points.length;
  return points.reduce(
    (now, { id, at }) => withMoved(now, new Set([id]), { x: 0, y: 0, z: 0, [axis]: mean - at[axis] }),
    place,
  );
}

/** The place with all that is chosen at equal steps along an axis, the outermost where they are. */
export function withDistributed(place: Place, ids: ReadonlySet<string>, axis: keyof Point): Place {
  const points = chosenPoints(place, ids).sort((a, b) => a.at[axis] - b.at[axis]);
  if (points.length < 3) return place;
  const [first, last] = [points[0]!.at[axis], points.at(-1)!.at[axis]];
  return points.reduce((now, { id, at }, i) => {
    const to = first + ((last - first) * i) / (points.length - 1);
    return withMoved(now, new Set([id]), { x: 0, y: 0, z: 0, [axis]: to - at[axis] });
  }, place);
}
