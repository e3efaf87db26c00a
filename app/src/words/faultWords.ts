import type { Point } from '@pebble-hall/core/geometry';
import type { ModelFault } from '@pebble-hall/core/tracing';

/** Metres below this are told in the smaller unit. */
const SMALL_M = 0.1;
const lengthIn = (m: number, unit: 'm' | 'ft') => {
  if (m >= SMALL_M) return placeIn(m, unit);
  return unit === 'ft' ? `${(m / 0.0254).toFixed(1)} in` : `${(1000 * m).toFixed(1)} mm`;
};
const placeIn = (m: number, unit: 'm' | 'ft') =>
  unit === 'ft' ? `${(m / 0.3048).toFixed(1)} ft` : `${m.toFixed(2)} m`;

/** What is wrong with a model, where, and what to do. @param faces by their names */
export function faultSentence(fault: ModelFault, faces: readonly string[], unit: 'm' | 'ft'): string {
  const at = (p: Point) => `x ${placeIn(p.x, unit)}, y ${placeIn(p.y, unit)}, z ${placeIn(p.z, unit)}`;
  const face = (i: number) => faces[i] ?? `face ${i + 1}`;
  switch (fault.kind) {
    case 'leak':
      return `${(100 * fault.share).toPrecision(2)} % of the rays get out of the room, one of them near ${at(fault.at)}. Close the gap there, in Plan or in the drawing: what gets out is missing from all figures.`;
    case 'warped':
      return `${face(fault.face)} is not flat: its corners lie up to ${lengthIn(fault.byM, unit)} off its plane. Move a corner, or split it.`;
    case 'tiny':
      return `${face(fault.face)} is too small to reflect anything. Remove it.`;
    case 'doubled':
      return `${face(fault.face)} lies on ${face(fault.other)}, corner by corner. Remove one of them.`;
    case 'overlapping':
      return `${face(fault.face)} lies on ${face(fault.other)} over about ${Math.max(1, Math.round(100 * fault.share))} % of it: sound meets whichever comes first. Cut one of them back, or lay it 1 cm off.`;
    case 'outside':
      return `${fault.what} is outside the room. Move it in.`;
    case 'in a wall':
      return `${fault.what} is only ${lengthIn(fault.byM, unit)} off ${face(fault.face)}. Move it off the wall.`;
  }
}
