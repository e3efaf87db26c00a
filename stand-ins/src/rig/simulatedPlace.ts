import type { Point } from '@pebble-hall/core/geometry';
import {
  boxesOf,
  boxWalls,
  extentOf,
  facetArea,
  facetsOf,
  shapeVolume,
  type Group,
  type Shape,
} from '@pebble-hall/core/place';
import {
  boxImpulse,
  facetEyringTime,
  facetImpulse,
  type Air,
  type BoxRoom,
  type FacetRoom,
  type LoudspeakerModel,
  type PerOctave,
  type PlayedSource,
} from '@pebble-hall/core/room';
import { modelOf } from '../loudspeakers/index.js';
import { NET_LOFT, NET_LOFT_LOUDSPEAKERS, NET_LOFT_SHAPE } from '../net-loft/index.js';

/** A loudspeaker or a group, as the simulated rig plays it. */
export interface SimulatedLoudspeaker {
  id: string;
  name: string;
  role: 'full range' | 'subwoofer';
  /** output of the interface, from 1 */
  output: number;
  /** by its name */
  model: string;
  position: Point;
  aimDeg: number;
  pitchDeg: number;
  rollDeg: number;
  group: Group | null;
}

/** A place as far as sound goes: a project's place is one. */
export interface SimulatedPlace {
  shape: Shape;
  temperatureC: number;
  relativeHumidityPercent: number;
  loudspeakers: readonly SimulatedLoudspeaker[];
}

/** The Net Loft, its loudspeakers where they really stand. */
export const NET_LOFT_PLACE: SimulatedPlace = {
  shape: NET_LOFT_SHAPE,
  temperatureC: NET_LOFT.air.temperatureC,
  relativeHumidityPercent: NET_LOFT.air.relativeHumidityPercent,
  loudspeakers: NET_LOFT_LOUDSPEAKERS.map(({ model, ...l }) => ({
    ...l,
    model: model.name,
    pitchDeg: 0,
    rollDeg: 0,
    group: null,
  })),
};

export const modelOfLoudspeaker = ({ model, role }: SimulatedLoudspeaker): LoudspeakerModel =>
  modelOf(model, role);

/** What a room is made of, for sound; worked out once per shape and air. */
export interface Acoustics {
  /** null where it is no box along the axes */
  box: BoxRoom | null;
  /** where the corner of the box lies */
  origin: Point;
  room: FacetRoom;
  /** samples that an impulse response needs, a power of two */
  size: number;
}

const LEAST_SIZE = 65536;
const MOST_SIZE = 524288;

/** What swallows nothing at all rings for ever, and what swallows everything has no time: both are played as nearly so. */
const played = (absorption: PerOctave): PerOctave =>
  absorption.map((a) => Math.min(MOST_SWALLOWED, Math.max(LEAST_SWALLOWED, a)));
const [LEAST_SWALLOWED, MOST_SWALLOWED] = [0.005, 0.99];

export function acousticsOf(
  {
    shape,
    temperatureC,
    relativeHumidityPercent,
  }: Pick<SimulatedPlace, 'shape' | 'temperatureC' | 'relativeHumidityPercent'>,
  rate: number,
): Acoustics {
  const air: Air = { temperatureC, relativeHumidityPercent };
  const facets = facetsOf(shape)
    .map((f) => ({ ...f, absorption: played(f.absorption), area: facetArea(f) }))
    .filter((f) => f.area > 0);
  const room: FacetRoom = { facets, volume: shape.isEnclosed ? shapeVolume(shape) : null, air };
  const walls = boxWalls(shape);
  const { least, most } = extentOf(shape);
  const box: BoxRoom | null = walls && {
    size: { x: most.x - least.x, y: most.y - least.y, z: most.z - least.z },
    absorption: [walls.least.x, walls.most.x, walls.least.y, walls.most.y, shape.floor, shape.roof].map((f) =>
      played(f.absorption),
    ) as unknown as BoxRoom['absorption'],
    air,
  };
  const longestS = room.volume === null ? 0.5 : Math.max(...facetEyringTime(room));
  let size = LEAST_SIZE;
  while (size < MOST_SIZE && size < 1.1 * longestS * rate) size *= 2;
  return { box, origin: least, room, size };
}

/**
 * From a loudspeaker or group to a microphone: a box by its modes and images (`boxImpulse`), any other shape by images up to
 * the order that its faces allow and a diffuse tail (`facetImpulse`).
 */
export function wayThrough(
  { box, origin, room, size }: Acoustics,
  loudspeaker: SimulatedLoudspeaker,
  microphone: Point,
  rate: number,
  seed: number,
): Float64Array {
  const model = modelOfLoudspeaker(loudspeaker);
  const sources = boxesOf(loudspeaker).map(({ position, aim, delayMs, inverted }): PlayedSource => ({
    model,
    position,
    aim,
    delayS: delayMs / 1000,
    gain: inverted ? -1 : 1,
  }));
  if (!box) return facetImpulse(room, sources, microphone, { rate, size, seed });
  const inBox = (p: Point): Point => ({
    x: held(p.x - origin.x, box.size.x),
    y: held(p.y - origin.y, box.size.y),
    z: held(p.z - origin.z, box.size.z),
  });
  const sum = new Float64Array(size);
  sources.forEach((source, n) => {
    const part = boxImpulse(box, { ...source, position: inBox(source.position) }, inBox(microphone), {
      rate,
      size,
      seed: seed + n,
    });
    const late = Math.round(source.delayS * rate);
    for (let i = late; i < size; i++) sum[i] = sum[i]! + source.gain * part[i - late]!;
  });
  return sum;
}

/** What is drawn into a wall, or behind it, plays just in front of it. */
const held = (v: number, most: number) =>
  Math.min(Math.max(v, Math.min(0.02, most / 4)), most - Math.min(0.02, most / 4));
