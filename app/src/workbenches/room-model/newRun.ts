import {
  areaOf,
  boundsOf,
  distanceBetween,
  isWithin,
  meanPoint,
  type Point,
} from '@pebble-hall/core/geometry';
import {
  EAR_M,
  earHeightAt,
  extentOf,
  floorAt,
  seatsOfPlace,
  roomSurfaces,
  roomVolume,
} from '@pebble-hall/core/place';
import { freeName, runFaces, type Place, type Project } from '@pebble-hall/core/project';
import { roomStatistics } from '@pebble-hall/core/room';
import {
  INSTRUMENTS,
  suggestRun,
  type Accuracy,
  type InstrumentName,
  type RoomRun,
  type RunReceiver,
  type RunSource,
  type SuggestedRun,
  type Voice,
} from '@pebble-hall/core/runs';
import { lengthText } from '../../drawing';
import { runChannel, settingKey } from '../../services/runSources';

/** Where it is heard. */
export const HEARD = {
  'a few seats': 12,
  'about 30 seats': 30,
  'about 60 seats': 60,
  'the spots': 0,
  'a line to the rear': -1,
  'a grid over the audience': -2,
} as const;
export type HeardWhere = keyof typeof HEARD;

/** What sounds: a talker and loudspeakers, or one that has no level of its own. */
export const SOUNDS = [
  'speech',
  'a point source',
  ...(Object.keys(INSTRUMENTS) as InstrumentName[]),
] as const;
export type Sounds = (typeof SOUNDS)[number];

/** Where those who hear it look: at where it comes from, or all along one axis. */
export interface Looking {
  /** degrees counter-clockwise from x; null at the source */
  alongDeg: number | null;
}

/** Numbers of a run that one sets oneself, in place of what is suggested. */
export type RunNumbersAsked = Partial<Pick<SuggestedRun, 'raysPerGroup' | 'lengthS' | 'mirrored'>>;

/** What is asked for a run. */
export interface RunAsking {
  name: string;
  talker: boolean;
  talkerAt: Point;
  voice: Voice;
  /** speech, or instead of all others one source from the talker's place without a level of its own */
  sounds: Sounds;
  loudspeakerIds: string[];
  signalDbfs: number;
  heard: HeardWhere;
  looking: Looking;
  tracedBy: RoomRun['tracedBy'];
  accuracy: Accuracy;
  own: RunNumbersAsked;
  /** noise of the place, A-weighted in octaves of equal steps; null where it is left out */
  noiseDb: number | null;
}

const MOUTH_M = 1.6;

/** Where a talker would stand: on the stage, else before the front wall. */
export function talkerPlace({ shape, fixtures }: Place): Point {
  const stage = fixtures.find((f) => f.kind === 'stage');
  if (stage) return { x: stage.x + stage.width / 2, y: stage.y + stage.depth / 2, z: stage.top + MOUTH_M };
  const { least, most } = extentOf(shape);
  const at = { x: least.x + 0.12 * (most.x - least.x), y: (least.y + most.y) / 2 };
  return { ...at, z: floorAt(shape, at) + MOUTH_M };
}

/** Seats or spots that a run is heard at. */
export function receiversOf(
  place: Place,
  where: HeardWhere,
  source: Point,
  { alongDeg }: Looking = { alongDeg: null },
): RunReceiver[] {
  const most = HEARD[where];
  const points =
    where === 'a line to the rear'
      ? lineOf(place, source)
      : where === 'a grid over the audience'
        ? gridOf(place)
        : most > 0
          ? seatsOfPlace(place, most).map(({ name, position }, i) => ({ id: `seat-${i}`, name, position }))
          : place.spots.map(({ id, name, position }) => ({ id, name, position }));
  return points.map((p) => ({
    ...p,
    azimuthDeg: alongDeg ?? azimuthDeg(p.position, source),
  }));
}

/** A grid has about so many points, no nearer to each other than this, metres. */
const [ON_GRID, NEAREST_M] = [80, 0.8];

/** Receivers at ear height on a square grid over the audience areas; over the floor where there are none. */
function gridOf({ shape, audience }: Place) {
  const areas = audience.length > 0 ? audience : [null];
  const squareM = areas.reduce((sum, a) => sum + areaOf((a ?? shape).outline), 0);
  const step = Math.max(NEAREST_M, Math.sqrt(squareM / ON_GRID));
  const points = areas.flatMap((area) => {
    const { outline } = area ?? shape;
    const { least, most } = boundsOf(outline);
    const along = (from: number, to: number) => {
      const count = Math.max(1, Math.round((to - from) / step));
      return Array.from({ length: count }, (_, i) => from + ((i + 0.5) * (to - from)) / count);
    };
    return along(least.x, most.x)
      .flatMap((x) => along(least.y, most.y).map((y) => ({ x, y })))
      .filter((at) => isWithin(outline, at))
      .map((at) => ({ ...at, z: area ? earHeightAt(area, shape, at) : floorAt(shape, at) + EAR_M.seated }));
  });
  return points.map((position, i) => ({ id: `grid-${i}`, name: `Grid ${i + 1}`, position }));
}

/** So many receivers stand on a line. */
const ON_LINE = 12;
/** The first of them is so far from the source, and the last one from the wall, metres. */
const [FIRST_M, LAST_M] = [1, 0.5];
/** The line is followed in steps of this, metres. */
const STEP_M = 0.05;

/**
 * Receivers at ear height from a source away over the middle of the audience, or of the room, to the wall behind it; evenly, and
 * named by how far they are from the source, seen from above.
 */
function lineOf({ shape, audience, lengthUnit }: Place, source: Point) {
  const corners = audience.length > 0 ? audience.flatMap((a) => a.outline) : shape.outline;
  const { least, most } = boundsOf(corners);
  const aim = { x: (least.x + most.x) / 2 - source.x, y: (least.y + most.y) / 2 - source.y };
  const long = Math.hypot(aim.x, aim.y);
  const [u, v] = long > 0 ? [aim.x / long, aim.y / long] : [1, 0];
  const at = (m: number) => ({ x: source.x + u * m, y: source.y + v * m });
  let end = FIRST_M;
  while (isWithin(shape.outline, at(end + STEP_M + LAST_M))) end += STEP_M;
  return Array.from({ length: ON_LINE }, (_, i) => {
    const m = FIRST_M + ((end - FIRST_M) * i) / (ON_LINE - 1);
    const on = at(m);
    return {
      id: `line-${i}`,
      name: `Line, ${lengthText(m, lengthUnit, 1)}`,
      position: { ...on, z: floorAt(shape, on) + EAR_M.seated },
    };
  });
}

const azimuthDeg = (from: Point, to: Point): number =>
  Math.round((Math.atan2(to.y - from.y, to.x - from.x) * 1800) / Math.PI) / 10;

/** Level of each octave of noise that falls by 5 dB an octave, as that of ventilation does, for its A-weighted sum. */
export function noiseOctaves(levelA: number): number[] {
  const weights = [-26.2, -16.1, -8.6, -3.2, 0, 1.2, 1, -1.1];
  const shape = weights.map((_, o) => -5 * o);
  const sum = 10 * Math.log10(shape.reduce((s, db, o) => s + 10 ** ((db + weights[o]!) / 10), 0));
  return shape.map((db) => Math.round(10 * (db + levelA - sum)) / 10);
}

/** What a run of a place needs for an accuracy. */
export function suggestedRun(place: Place, accuracy: Accuracy): SuggestedRun {
  const { temperatureC, relativeHumidityPercent } = place;
  const statistics = roomStatistics(roomSurfaces(place), roomVolume(place), {
    temperatureC,
    relativeHumidityPercent,
  });
  return suggestRun(
    {
      meanFreePathM: statistics.meanFreePathM,
      timeS: Math.max(...statistics.eyring),
      faces: runFaces(place).length,
    },
    accuracy,
  );
}

/** So many rays from a source take a second or two: then a run may as well be surer. */
const CHEAP_RAYS = 10_000;

/** How sure a run of a place is to be unless one says otherwise: fine where that costs little, as in a small room. */
export function usualAccuracy(place: Place): Accuracy {
  const { raysPerGroup, groups } = suggestedRun(place, 'fine');
  return raysPerGroup * groups <= CHEAP_RAYS ? 'fine' : 'usual';
}

/** Sources of a run as asked. */
export function sourcesOf(project: Project, asked: RunAsking): RunSource[] {
  const { place } = project;
  const position = asked.talkerAt;
  if (asked.sounds === 'a point source')
    return [{ id: 'point', name: 'Point source', kind: 'omnidirectional', position }];
  const seats = receiversOf(place, asked.heard, position);
  const middle = seats.length > 0 ? meanPoint(seats.map((s) => s.position)) : position;
  const facing = distanceBetween(middle, position) > 0 ? azimuthDeg(position, middle) : 0;
  if (asked.sounds !== 'speech') {
    const name = asked.sounds.replace(/^./, (c) => c.toUpperCase());
    return [
      { id: asked.sounds, name, kind: 'instrument', position, azimuthDeg: facing, instrument: asked.sounds },
    ];
  }
  const talker: RunSource = {
    id: 'talker',
    name: 'Talker',
    kind: 'talker',
    position,
    azimuthDeg: facing,
    elevationDeg: 0,
    voice: asked.voice,
  };
  const loudspeakers = place.loudspeakers
    .filter((l) => asked.loudspeakerIds.includes(l.id))
    .map((l): RunSource => {
      const channel = runChannel(project, l.id)!;
      return {
        id: l.id,
        name: l.name,
        kind: 'loudspeaker',
        position: meanPoint(channel.boxes.map((b) => b.position)),
        loudspeakerId: l.id,
        signalDbfs: asked.signalDbfs,
        setting: settingKey(channel),
      };
    });
  return [...(asked.talker ? [talker] : []), ...loudspeakers];
}

/** A run of the room as it is now. @param seed of its rays */
export function runAsked(project: Project, asked: RunAsking, seed: number): RoomRun {
  const { place, roomRuns } = project;
  const sources = sourcesOf(project, asked);
  const { temperatureC, relativeHumidityPercent } = place;
  return {
    id: crypto.randomUUID(),
    name: freeName(
      asked.name.trim() || 'Run',
      roomRuns.map((r) => r.name),
    ),
    madeAt: Date.now(),
    faces: runFaces(place),
    volume: roomVolume(place),
    air: { temperatureC, relativeHumidityPercent },
    sources,
    receivers: receiversOf(place, asked.heard, sources[0]!.position, asked.looking),
    ...suggestedRun(place, asked.accuracy),
    ...asked.own,
    seed,
    noiseLevelsDb: asked.noiseDb === null || asked.sounds !== 'speech' ? null : noiseOctaves(asked.noiseDb),
    tracedBy: asked.tracedBy,
    isHeld: false,
  };
}

/** The same again in the room as it is now: other numbers of the same seeds. */
export function runAgain(project: Project, run: RoomRun, name: string): RoomRun {
  const { place, roomRuns } = project;
  const { temperatureC, relativeHumidityPercent } = place;
  return {
    ...run,
    id: crypto.randomUUID(),
    name: freeName(
      name,
      roomRuns.map((r) => r.name),
    ),
    madeAt: Date.now(),
    faces: runFaces(place),
    volume: roomVolume(place),
    air: { temperatureC, relativeHumidityPercent },
    sources: run.sources.map((s) => {
      const channel = s.kind === 'loudspeaker' ? runChannel(project, s.loudspeakerId) : null;
      return s.kind === 'loudspeaker' && channel
        ? { ...s, position: meanPoint(channel.boxes.map((b) => b.position)), setting: settingKey(channel) }
        : s;
    }),
    isHeld: false,
  };
}
