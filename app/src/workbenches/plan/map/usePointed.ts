import { useState, type PointerEvent } from 'react';
import { lengthText, type Projection } from '../../../drawing';
import { levelWords } from './levelWords';
import type { LevelMap } from './useLevelMap';

/** A seat is pointed at when it is nearer than this, metres. */
const AT_SEAT_M = 0.6;

/** The level under the pointer, as words. */
export function usePointed(map: LevelMap, projection: Projection, unit: 'm' | 'ft') {
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (!map.maps || projection.view !== 'above') return;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    );
    setAt(projection.under(p.x, p.y, { x: 0, y: 0, z: 0 }));
  };
  return { onPointerMove, onPointerLeave: () => setAt(null), words: at && wordsAt(map, at, unit) };
}

function wordsAt(
  { maps, zeroDb, settings }: LevelMap,
  at: { x: number; y: number },
  unit: 'm' | 'ft',
): string | null {
  if (!maps) return null;
  const { grid, levels, seats } = maps;
  const shown = (db: number) => levelWords(db - zeroDb, settings.show, maps.isDifference);
  const away = (s: (typeof seats)[number]) => Math.hypot(s.position.x - at.x, s.position.y - at.y);
  const seat = seats.reduce<(typeof seats)[number] | null>(
    (best, s) => (best === null || away(s) < away(best) ? s : best),
    null,
  );
  if (seat && away(seat) < AT_SEAT_M) return `${seat.name}: ${shown(seat.db)}`;
  const c = Math.round((at.x - grid.x0) / grid.step);
  const r = Math.round((at.y - grid.y0) / grid.step);
  const n = r * grid.columns + c;
  if (c < 0 || r < 0 || c >= grid.columns || r >= grid.rows || !grid.isIn[n]) return null;
  return `${lengthText(at.x, unit, 1)} from the front, ${lengthText(at.y, unit, 1)} from the left: ${shown(levels[n]!)}`;
}
