import { coverageChannel, settingsPath, type ChannelOf, type SourceField } from '@pebble-hall/core/coverage';
import type { Point } from '@pebble-hall/core/geometry';
import { seatsOfPlace } from '@pebble-hall/core/place';
import { variantOf, type Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import type { AskedModel, PressuresAsked } from './jobs';
import { modelOf } from './placeModels';

/** Where modelled sources are heard. */
export interface HeardAt {
  id: string;
  name: string;
  position: Point;
  /** audience area of a seat; null for any other place */
  areaId: string | null;
}

/** So many seats tell as much as all of them do, and are answered while the hand moves. */
const MOST_SEATS = 60;

/** Seats of the plan, of very many every so manieth; the spots of the walk where no seats are drawn. */
export function heardAt({ place }: Pick<Project, 'place'>): HeardAt[] {
  const seats = seatsOfPlace(place, MOST_SEATS);
  if (seats.length > 0)
    return seats.map(({ name, position, areaId }, i) => ({ id: `seat-${i}`, name, position, areaId }));
  return place.spots.map(({ id, name, position }) => ({ id, name, position, areaId: null }));
}

/**
 * A channel of the plan as it is before anything aligns it: its boxes, and of the shown variant its sections by hand, but neither
 * trim, delay, polarity nor crossovers: those are what is sought.
 */
export function modelledChannel(project: Project, id: string, rate: number): ChannelOf<AskedModel> | null {
  const loudspeaker = project.place.loudspeakers.find((l) => l.id === id);
  if (!loudspeaker) return null;
  const { correction } = variantOf(project);
  return coverageChannel(
    loudspeaker,
    modelOf(project.place, loudspeaker),
    settingsPath(loudspeaker, { ...correction, alignment: {}, crossovers: {}, allPasses: {} }, rate),
  );
}

/** What is asked of the models: channels at points, in the open, air with it. */
export const pressuresAsked = (
  { place }: Pick<Project, 'place'>,
  channels: ChannelOf<AskedModel>[],
  points: readonly Point[],
  frequency: Float64Array,
): PressuresAsked => ({
  channels,
  points: Float64Array.from(points.flatMap(({ x, y, z }) => [x, y, z])),
  frequency,
  speed: speedOfSound(place.temperatureC),
  air: { temperatureC: place.temperatureC, relativeHumidityPercent: place.relativeHumidityPercent },
  ground: null,
});

/** A point of a field as a curve of the library. @param field on its frequencies */
export const curveOfField = ({ re, im }: SourceField, point: number): LibraryCurve => ({
  frequency: LIBRARY_GRID,
  re: Float64Array.from(re, (at) => at[point]!),
  im: Float64Array.from(im, (at) => at[point]!),
  coherence: LIBRARY_GRID.map(() => NaN),
  hasPhase: true,
});
