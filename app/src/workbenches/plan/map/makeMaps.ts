import {
  arrivalMap,
  coverageChannel,
  evenedOut,
  gridOver,
  levelFigures,
  MOST_SOURCES,
  settingsPath,
  type ChannelOf,
  type LevelFigures,
  type LevelGrid,
  type SettingsInMap,
} from '@pebble-hall/core/coverage';
import type { Corner, Point } from '@pebble-hall/core/geometry';
import { areaOf, isWithin } from '@pebble-hall/core/geometry';
import { earHeightAt, floorAt, floorPlane, seatsOrNone } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { runJob, type AskedModel, type LevelMapAsked } from '../../../services/jobs';
import { modelOf } from '../models/ownModels';
import { bandOf, type MapSettings } from './mapSettings';

/** What of a place a map depends on. */
export type MappedPlace = Pick<
  Place,
  'shape' | 'audience' | 'seats' | 'loudspeakers' | 'models' | 'temperatureC' | 'relativeHumidityPercent'
> & { home: Point };

export interface MapAsked {
  place: MappedPlace;
  settings: MapSettings;
  correction: SettingsInMap;
  rate: number;
  /** channels whose reach is asked for */
  reachOf: string[];
}

export interface SeatLevel {
  name: string;
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
  homeDb: number;
  first: MapChannel[];
  others: MapChannel[];
  /** models that are not in the library, and as what each is taken */
  unknown: { asked: string; taken: string }[];
}

/** A channel with its model as it is asked for. */
export type MapChannel = ChannelOf<AskedModel>;

/** So many points keep up with the hand. */
const GRID_POINTS = 2000;
const MOST_SEATS = 1000;
/** Less is no floor, square metres. */
const LEAST_M2 = 0.01;
/** Lines are drawn of the mean over circles of this radius, metres: finer patterns tear them to pieces. */
export const EVEN_M = 0.75;

/** Points of the surface that is looked at; of an audience that is not drawn yet the whole floor. */
function gridOf({ shape, audience }: MappedPlace, { surface, heightM }: MapSettings): LevelGrid {
  if (surface === 'floor' || audience.length === 0)
    return gridOver([shape.outline], (at) => floorAt(shape, at) + heightM, GRID_POINTS);
  const heightAt = (at: Corner) => {
    const area = audience.find((a) => isWithin(a.outline, at)) ?? audience[0]!;
    return earHeightAt(area, shape, at);
  };
  return gridOver(
    audience.map((a) => a.outline),
    heightAt,
    GRID_POINTS,
  );
}

/** Seats that are judged: of very many every so manieth. */
function seatsOfPlace({ shape, audience, seats }: MappedPlace): { name: string; position: Point }[] {
  const all = [...seats, ...audience.flatMap((a) => seatsOrNone(a, shape))];
  const every = Math.max(1, Math.ceil(all.length / MOST_SEATS));
  return all.filter((_, i) => i % every === 0);
}

/** Models of channels that are not in the library, each once. */
function unknownModels({ loudspeakers, models }: MappedPlace): MadeMaps['unknown'] {
  const found = loudspeakers
    .filter((l) => l.fitted)
    .map((l) => ({ asked: l.model, taken: modelOf({ models }, l).name }))
    .filter((m) => m.asked !== m.taken);
  return [...new Map(found.map((m) => [m.asked, m])).values()];
}

/** All that a map shows, from the place as it is now. @param work makes one map; in a worker when absent */
export async function makeMaps(
  { place, settings, correction, rate, reachOf }: MapAsked,
  { signal }: { signal: AbortSignal },
  work: (request: LevelMapAsked) => Promise<Float64Array> | Float64Array = (request) =>
    runJob('coverage.level', request, { signal }),
): Promise<MadeMaps> {
  const { shape, temperatureC, relativeHumidityPercent } = place;
  if (areaOf(shape.outline) < LEAST_M2)
    throw new Error('The place has no floor to look at. Give it a length and a width.');
  const grid = gridOf(place, settings);
  const seats = seatsOfPlace(place);
  const speed = speedOfSound(temperatureC);
  const points = new Float64Array(grid.points.length + 3 * (seats.length + 1));
  points.set(grid.points);
  [...seats.map((s) => s.position), place.home].forEach(({ x, y, z }, i) =>
    points.set([x, y, z], grid.points.length + 3 * i),
  );
  const channels = place.loudspeakers
    .filter((l) => l.fitted)
    .map((l) => coverageChannel(l, modelOf(place, l), settingsPath(l, correction, rate)));
  const boxes = channels.reduce((sum, c) => sum + c.boxes.length, 0);
  if (boxes > MOST_SOURCES)
    throw new Error(
      `The map takes ${MOST_SOURCES.toLocaleString('en')} boxes; there are ${boxes.toLocaleString('en')}. Say of some channels that they are not fitted.`,
    );
  const on = channels.filter((c) => !settings.off.includes(c.id));
  const isSecond = (c: MapChannel) => settings.compares && settings.second.includes(c.id);
  const [first, others] = [on.filter((c) => !isSecond(c)), on.filter(isSecond)];
  const levelOf = async (of: MapChannel[]) =>
    work({
      channels: of,
      points,
      band: bandOf(settings),
      how: settings.how,
      signalDbfs: settings.signalDbfs,
      speed,
      air: settings.air ? { temperatureC, relativeHumidityPercent } : null,
      ground: settings.floorReflects ? floorPlane(shape) : null,
    });
  const count = grid.columns * grid.rows;
  const levels = await levelOf(first);
  const second = others.length > 0 ? await levelOf(others) : null;
  const even = (all: Float64Array) => evenedOut(grid, all.slice(0, count), EVEN_M);
  const laterS =
    first.length > 0 && others.length > 0
      ? difference(arrivalMap(others, grid.points, speed), arrivalMap(first, grid.points, speed))
      : null;
  const reach: MadeMaps['reach'] = [];
  for (const channel of channels.filter((c) => reachOf.includes(c.id))) {
    const alone = even(await levelOf([channel]));
    const loudest = alone.reduce((most, v, i) => (grid.isIn[i] ? Math.max(most, v) : most), -Infinity);
    if (Number.isFinite(loudest)) reach.push({ id: channel.id, levels: alone, edgeDb: loudest - 6 });
  }
  const isDifference = second !== null && settings.look === 'A less B';
  const seen = !second || settings.look === 'A' ? levels : isDifference ? difference(levels, second) : second;
  const seated = seats.map(({ name, position }, i) => ({ name, position, db: seen[count + i]! }));
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
    homeDb: seen[count + seats.length]!,
    first,
    others,
    unknown: unknownModels(place),
  };
}

const difference = (a: Float64Array, b: Float64Array) => a.map((v, i) => v - b[i]!);
