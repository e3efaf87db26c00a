import { inFrame, type GridFrame } from '@pebble-hall/core/coverage';
import { distanceBetween, type Corner, type Point } from '@pebble-hall/core/geometry';
import { useState, type MouseEvent, type PointerEvent } from 'react';
import { lengthText, type Projection } from '../../../drawing';
import { levelWords } from './levelWords';
import { viewOfFrame, type LevelMap } from './useLevelMap';

/** A seat is pointed at when it is nearer than this, metres. */
const AT_SEAT_M = 0.6;

/** Where one points in the plane of a map. */
function inPlane(frame: GridFrame, projection: Projection, u: number, v: number): Corner {
  const p = projection.under(u, v, { x: 0, y: 0, z: 0 });
  const [h, up] = projection.axes;
  return { x: (p[h] - frame.origin[h]) / frame.across[h], y: (p[up] - frame.origin[up]) / frame.along[up] };
}

/** The level under the pointer, as words; and the place there, to be pinned. */
export function usePointed(map: LevelMap, projection: Projection, unit: 'm' | 'ft') {
  const [at, setAt] = useState<Corner | null>(null);
  const { maps } = map;
  const isSeen = maps !== null && viewOfFrame(maps.grid.frame) === projection.view;
  const cornerOf = (event: MouseEvent<SVGSVGElement>): Corner | null => {
    if (!isSeen) return null;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    );
    return inPlane(maps.grid.frame, projection, p.x, p.y);
  };
  return {
    onPointerMove: (event: PointerEvent<SVGSVGElement>) => setAt(cornerOf(event)),
    onPointerLeave: () => setAt(null),
    /** keeps the place that was pressed; the seat that is there, else the point of the surface */
    pin: (event: MouseEvent<SVGSVGElement>) => {
      const corner = cornerOf(event);
      const place = corner && placeAt(map, corner, unit);
      if (place) map.set({ pinned: { name: place.name, position: place.position } });
    },
    words: at && wordsAt(map, at, unit),
  };
}

/** What lies at a point of a map: a seat, or the point itself; null beside the surface. */
function placeAt(
  { maps }: LevelMap,
  at: Corner,
  unit: 'm' | 'ft',
): { name: string; position: Point; db: number } | null {
  if (!maps) return null;
  const { grid, levels, seats } = maps;
  const c = Math.round((at.x - grid.x0) / grid.step);
  const r = Math.round((at.y - grid.y0) / grid.step);
  const n = r * grid.columns + c;
  const isOn = c >= 0 && r >= 0 && c < grid.columns && r < grid.rows && grid.isIn[n] === 1;
  const isAbove = grid.frame.along.z === 0;
  const flat = inFrame(grid.frame, at);
  const there: Point = isAbove && isOn ? { ...flat, z: grid.points[3 * n + 2]! } : flat;
  const away = (s: (typeof seats)[number]) =>
    isAbove ? Math.hypot(s.position.x - at.x, s.position.y - at.y) : distanceBetween(s.position, there);
  const seat = seats.reduce<(typeof seats)[number] | null>(
    (best, s) => (best === null || away(s) < away(best) ? s : best),
    null,
  );
  if (seat && away(seat) < AT_SEAT_M) return seat;
  if (!isOn) return null;
  const high = isAbove ? '' : `, ${lengthText(there.z, unit, 1)} high`;
  return {
    name: `${lengthText(there.x, unit, 1)} from the front, ${lengthText(there.y, unit, 1)} from the left${high}`,
    position: there,
    db: levels[n]!,
  };
}

function wordsAt(map: LevelMap, at: Corner, unit: 'm' | 'ft'): string | null {
  const place = placeAt(map, at, unit);
  return place && `${place.name}: ${levelWords(place.db - map.zeroDb, map.settings, map.maps!.isDifference)}`;
}
