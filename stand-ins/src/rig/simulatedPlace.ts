import type { Point } from '@pebble-hall/core/geometry';
import type { Group, ModelledRoom } from '@pebble-hall/core/place';
import type { LoudspeakerModel } from '@pebble-hall/core/room';
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
export interface SimulatedPlace extends ModelledRoom {
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
