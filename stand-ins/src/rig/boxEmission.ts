import { channelEmission } from '@pebble-hall/core/coverage';
import { axesOf, dot, type Axes } from '@pebble-hall/core/geometry';
import { signalPath } from '@pebble-hall/core/path';
import { emissionInto, type DirectionEnergies } from '@pebble-hall/core/tracing';
import { radiatingOf } from '../loudspeakers/index.js';
import type { SimulatedLoudspeaker } from './simulatedPlace.js';

/** Of each model, into directions from its own point of view. */
const known = new Map<string, DirectionEnergies>();

/** Energy per octave that a box of a model sends into directions, against that on its axis; it looks along x. */
function ownEmission({ model: name, role }: Pick<SimulatedLoudspeaker, 'model' | 'role'>, speed: number) {
  const model = radiatingOf(name, role);
  const key = `${model.name} ${speed}`;
  const found = known.get(key);
  if (found) return found;
  const box = { position: { x: 0, y: 0, z: 0 }, axes: axesOf(0), delayMs: 0, inverted: false };
  const { table } = channelEmission({ id: name, model, boxes: [box], path: signalPath(48_000) }, speed);
  const into = emissionInto(table);
  const onAxis = new Float64Array(8);
  into(1, 0, 0, onAxis);
  const made = emissionInto(table.map((e, i) => e / onAxis[i % onAxis.length]!));
  known.set(key, made);
  return made;
}

/** The same of a box as it is turned. */
export function boxEmission(
  of: Pick<SimulatedLoudspeaker, 'model' | 'role'>,
  { ahead, left, up }: Axes,
  speed: number,
): DirectionEnergies {
  const own = ownEmission(of, speed);
  return (x, y, z, out) => {
    const to = { x, y, z };
    own(dot(to, ahead), dot(to, left), dot(to, up), out);
  };
}
