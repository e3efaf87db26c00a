import {
  arrivalMap,
  evenedOut,
  gridOver,
  levelFigures,
  mapFrequencies,
  rowsApartDb,
  uprightGrid,
  type LevelFigures,
  type LevelGrid,
} from '@pebble-hall/core/coverage';
import type { Point } from '@pebble-hall/core/geometry';
import { areaOf, boundsOf } from '@pebble-hall/core/geometry';
import { floorAt, floorPlane, seatsOfPlace } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { runJob, type LevelMapAsked } from '../../../services/jobs';
import { audienceGrid } from '../../../services/audienceGrid';
import { modelOf } from '../../../services/placeModels';
import { mapChannels, type ChannelsAsked, type MapChannel } from './mapChannels';
import { bandOf, type MapSettings } from './mapSettings';

/** What of a place a map depends on. */
export type MappedPlace = Pick<
  Place,
  'shape' | 'audience' | 'seats' | 'loudspeakers' | 'models' | 'temperatureC' | 'relativeHumidityPercent'
> & { home: Point };

export interface MapAsked extends ChannelsAsked {
  place: MappedPlace;
  settings: MapSettings;
  /** channels whose reach is asked for */
  reachOf: string[];
  /** fewer frequencies for a first look; all of them when absent */
  perThird?: number;
}

export interface SeatLevel {
  name: string;
  /** the row that it belongs to, in its area; null for a seat by itself */
  row: string | null;
  position: Point;
  db: number;
}

export interface MadeMaps {
  grid: LevelGrid;
  /** dB at each point of the grid as they are seen: of all that sounds, of one of two maps, or of their difference */
  levels: Float64Array;
  isDifference: boolean;
  /** the same, and of both of two maps, evened out over a metre and a half, for lines that can be read */
  even: { levels: Float64Array; first: Float64Array; second: Float64Array | null };
  /** seconds by which the second is heard after the first */
  laterS: Float64Array | null;
  /** by channel: its level alone, and that at which it has fallen by 6 dB from its loudest */
  reach: { id: string; levels: Float64Array; edgeDb: number }[];
  seats: SeatLevel[];
  figures: LevelFigures | null;
  /** between the quietest and the loudest row, by their means, dB; null without two of them */
  rowsApartDb: number | null;
  homeDb: number;
  /** at the place that is pinned; null without one */
  pinnedDb: number | null;
  first: MapChannel[];
  others: MapChannel[];
  /** models that are not in the library, and as what each is taken */
  unknown: { asked: string; taken: string }[];
}

/** So many points keep up with the hand. */
const GRID_POINTS = 2000;
export const MOST_SEATS = 1000;
/** Less is no floor, square metres. */
const LEAST_M2 = 0.01;
/** Lines are drawn of the mean over circles of this radius, metres: finer patterns tear them to pieces. */
export const EVEN_M = 0.75;

/** Points of the surface that is looked at; of an audience that is not drawn yet the whole floor. */
function gridOf(place: MappedPlace, settings: MapSettings): LevelGrid {
  const { shape, audience } = place;
  const { surface, heightM, rise } = settings;
  if (surface === 'upright')
    return uprightGrid(shape, throughOf(place, settings), settings.bearingDeg, GRID_POINTS);
  if (surface === 'floor' || audience.length === 0) {
    const { least } = boundsOf(shape.outline);
    return gridOver(
      [shape.outline],
      (at) => floorAt(shape, at) + heightM + rise * (at.x - least.x),
      GRID_POINTS,
    );
  }
  return audienceGrid(place, GRID_POINTS);
}

/** @throws Error that says what to do where a surface has no area */
function gridOrTold(place: MappedPlace, settings: MapSettings): LevelGrid {
  try {
    return gridOf(place, settings);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Error(
      settings.surface === 'upright'
        ? 'The upright plane does not meet the place. Let it go through another point, or in another direction.'
        : 'The surface has no area. Give the audience areas a width and a depth.',
      { cause: error },
    );
  }
}

/** The point that an upright plane goes through. */
export const throughOf = (
  { loudspeakers, home }: Pick<MappedPlace, 'loudspeakers' | 'home'>,
  { through, pinned }: Pick<MapSettings, 'through' | 'pinned'>,
): Point =>
  through === 'pinned'
    ? (pinned?.position ?? home)
    : (loudspeakers.find((l) => l.id === through)?.position ?? home);

/** Models of channels that are not in the library, each once. */
function unknownModels({ loudspeakers, models }: MappedPlace): MadeMaps['unknown'] {
  const found = loudspeakers
    .filter((l) => l.fitted)
    .map((l) => ({ asked: l.model, taken: modelOf({ models }, l).name }))
    .filter((m) => m.asked !== m.taken);
  return [...new Map(found.map((m) => [m.asked, m])).values()];
}

/** Signal, air and ground of a place as they are set: the same for maps and for responses. */
export const soundOf = (
  { shape, temperatureC, relativeHumidityPercent }: MappedPlace,
  { how, signalDbfs, air, floorReflects }: MapSettings,
) => ({
  how,
  signalDbfs,
  speed: speedOfSound(temperatureC),
  air: air ? { temperatureC, relativeHumidityPercent } : null,
  ground: floorReflects ? floorPlane(shape) : null,
});

/** All that a map shows, from the place as it is now. @param work makes one map; in a worker when absent */
export async function makeMaps(
  asked: MapAsked,
  { signal }: { signal: AbortSignal },
  work: (request: LevelMapAsked) => Promise<Float64Array> | Float64Array = (request) =>
    runJob('coverage.level', request, { signal }),
): Promise<MadeMaps> {
  const { place, settings, reachOf, perThird } = asked;
  if (areaOf(place.shape.outline) < LEAST_M2)
    throw new Error('The place has no floor to look at. Give it a length and a width.');
  const grid = gridOrTold(place, settings);
  const seats = seatsOfPlace(place, MOST_SEATS);
  const extra = [
    ...seats.map((s) => s.position),
    place.home,
    ...(settings.pinned ? [settings.pinned.position] : []),
  ];
  const points = new Float64Array(grid.points.length + 3 * extra.length);
  points.set(grid.points);
  extra.forEach(({ x, y, z }, i) => points.set([x, y, z], grid.points.length + 3 * i));
  const band = bandOf(settings);
  const { all, first, others } = await mapChannels(asked, mapFrequencies(band, perThird));
  const sound = soundOf(place, settings);
  const levelOf = async (of: MapChannel[]) =>
    work({ channels: of, points, band, ...sound, ...(perThird === undefined ? {} : { perThird }) });
  const count = grid.columns * grid.rows;
  const levels = await levelOf(first);
  const second = others.length > 0 ? await levelOf(others) : null;
  const even = (of: Float64Array) => evenedOut(grid, of.slice(0, count), EVEN_M);
  const laterS =
    first.length > 0 && others.length > 0
      ? difference(arrivalMap(others, grid.points, sound.speed), arrivalMap(first, grid.points, sound.speed))
      : null;
  const reach: MadeMaps['reach'] = [];
  for (const channel of all.filter((c) => reachOf.includes(c.id))) {
    const alone = even(await levelOf([channel]));
    const loudest = alone.reduce((most, v, i) => (grid.isIn[i] ? Math.max(most, v) : most), -Infinity);
    if (Number.isFinite(loudest)) reach.push({ id: channel.id, levels: alone, edgeDb: loudest - 6 });
  }
  const isDifference = second !== null && settings.look === 'A less B';
  const seen = !second || settings.look === 'A' ? levels : isDifference ? difference(levels, second) : second;
  const seated = seats.map(({ name, row, position }, i) => ({ name, row, position, db: seen[count + i]! }));
  const evenBoth = { first: even(levels), second: second && even(second) };
  return {
    grid,
    levels: seen.slice(0, count),
    isDifference,
    even: {
      ...evenBoth,
      levels: !isDifference ? even(seen) : difference(evenBoth.first, evenBoth.second ?? evenBoth.first),
    },
    laterS,
    reach,
    seats: seated,
    figures: levelFigures(seated.map((s) => s.db)),
    rowsApartDb: rowsApartDb(seated),
    homeDb: seen[count + seats.length]!,
    pinnedDb: settings.pinned ? seen[count + seats.length + 1]! : null,
    first,
    others,
    unknown: unknownModels(place),
  };
}

const difference = (a: Float64Array, b: Float64Array) => a.map((v, i) => v - b[i]!);
