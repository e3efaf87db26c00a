import { LAYOUTS, offLayout, type Layout } from '@pebble-hall/core/layouts';
import { FACING_DEG, layoutLoudspeakers, type Loudspeaker, type Place } from '@pebble-hall/core/project';
import { extentOf } from '@pebble-hall/core/place';

export const layoutOf = ({ layoutId }: Pick<Place, 'layoutId'>): Layout | null =>
  LAYOUTS.find((l) => l.id === layoutId) ?? null;

/** How a loudspeaker stands against the layout of its place. */
export interface Offset {
  loudspeaker: Loudspeaker;
  /** degrees beyond what the layout allows: to the left, and too high, where positive; null where it asks for no direction */
  off: { azimuthDeg: number; elevationDeg: number } | null;
}

/** How far each loudspeaker of the layout is off it, seen from the home spot. */
export function layoutOffsets(place: Place): Offset[] {
  const layout = layoutOf(place);
  if (!layout) return [];
  const listener = { position: place.spots[0]!.position, facingDeg: FACING_DEG };
  return place.loudspeakers.flatMap((loudspeaker) => {
    const channel = layout.channels.find((c) => c.label === loudspeaker.layoutLabel);
    return channel ? [{ loudspeaker, off: offLayout(channel, loudspeaker.position, listener) }] : [];
  });
}

/** The greater of both, degrees. */
export const offDeg = ({ off }: Offset): number =>
  off ? Math.max(Math.abs(off.azimuthDeg), Math.abs(off.elevationDeg)) : 0;

/** "6° too far left, 3° too high"; empty where it is within what the layout allows. */
export function offWords({ off }: Offset): string {
  if (!off) return '';
  const { azimuthDeg: a, elevationDeg: e } = off;
  return [
    Math.abs(a) >= 0.5 ? `${Math.abs(a).toFixed(0)}° too far ${a > 0 ? 'left' : 'right'}` : '',
    Math.abs(e) >= 0.5 ? `${Math.abs(e).toFixed(0)}° too ${e > 0 ? 'high' : 'low'}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/**
 * The place with loudspeakers by a layout: those that are there and have its labels are moved to their places, those that are
 * missing come, others stay as they are. What is locked stays where it is.
 */
export function withLayout(place: Place, layoutId: string | null, newId: () => string): Place {
  const layout = LAYOUTS.find((l) => l.id === layoutId);
  if (!layout) return { ...place, layoutId: null };
  const { least, most } = extentOf(place.shape);
  const size = { x: most.x - least.x, y: most.y - least.y, z: most.z };
  const home = place.spots[0]!.position;
  const listener = { position: { ...home, x: home.x - least.x, y: home.y - least.y }, facingDeg: FACING_DEG };
  const wanted = layoutLoudspeakers(layout.channels, listener, size).map((l) => ({
    ...l,
    position: { ...l.position, x: l.position.x + least.x, y: l.position.y + least.y },
  }));
  const known = new Map(place.loudspeakers.map((l) => [l.layoutLabel, l]));
  const named = new Map(place.loudspeakers.map((l) => [l.name, l]));
  const used = new Set<string>();
  const placed = wanted.map((w) => {
    const had = known.get(w.layoutLabel) ?? named.get(w.name);
    if (!had || used.has(had.id)) return w;
    used.add(had.id);
    const { position, aimDeg, pitchDeg, mount, layoutLabel } = w;
    return had.locked ? { ...had, layoutLabel } : { ...had, position, aimDeg, pitchDeg, mount, layoutLabel };
  });
  const others = place.loudspeakers.filter((l) => !used.has(l.id)).map((l) => ({ ...l, layoutLabel: null }));
  const taken = new Set([...others, ...placed.filter((l) => used.has(l.id))].map((l) => l.output));
  const free = () => {
    let output = 1;
    while (taken.has(output) && output < 64) output++;
    taken.add(output);
    return output;
  };
  const loudspeakers = [
    ...placed.map((l) => (used.has(l.id) ? l : { ...l, id: newId(), output: free() })),
    ...others,
  ].slice(0, 64);
  return { ...place, layoutId: layout.id, loudspeakers };
}
