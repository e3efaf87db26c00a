import type { Point } from '@pebble-hall/core/geometry';
import {
  boxesOf,
  boxWalls,
  extentOf,
  facetArea,
  intoRoom,
  roomFacets,
  roomVolume,
} from '@pebble-hall/core/place';
import {
  facetOrder,
  loudspeakerSpectrum,
  roomStatistics,
  speedOfSound,
  type BoxRoom,
  type Lows,
  type PerOctave,
} from '@pebble-hall/core/room';
import {
  lowsOctaves,
  lowsPlan,
  lowsPlayed,
  lowsReachHz,
  playedImpulse,
  playedRays,
  playedWaves,
  suggestRun,
  wavesFrom,
  type LowsHeard,
  type LowsPlan,
  type PlayedBox,
  type PlayedRays,
  type PlayedRoom,
  type PlayedWaves,
} from '@pebble-hall/core/runs';
import { seedFrom } from '@pebble-hall/core/signal';
import { sceneOf } from '@pebble-hall/core/tracing';
import { boxWaves } from '@pebble-hall/core/waves';
import { boxEmission } from './boxEmission.js';
import { keptIn } from './keptIn.js';
import { modelOfLoudspeaker, type SimulatedLoudspeaker, type SimulatedPlace } from './simulatedPlace.js';

const LEAST_SIZE = 65536;
const MOST_SIZE = 524288;
/** Rays ring longer than statistics say, by this at most where what swallows lies unevenly about. */
const LONGER = 1.3;
/** In the open, seconds. */
const OPEN_S = 0.5;
/** More take longer than a sweep. */
const RAYS = { least: 8000, most: 12_000 };
/** Waves are worked out where they reach so far, Hz: in a hall they take seconds for each microphone, and rays tell all. */
const LEAST_WAVES_HZ = 63;
/** Microphones that are kept what rays and waves bring to. */
const MOST_MICROPHONES = 24;

/** What swallows nothing at all rings for ever, and what swallows everything has no time: both are played as nearly so. */
const played = (absorption: PerOctave): PerOctave =>
  absorption.map((a) => Math.min(MOST_SWALLOWED, Math.max(LEAST_SWALLOWED, a)));
const [LEAST_SWALLOWED, MOST_SWALLOWED] = [0.005, 0.99];

/** Of a place, what ways of sound depend on. */
type PlaceOfSound = Pick<SimulatedPlace, 'shape' | 'roomMesh' | 'temperatureC' | 'relativeHumidityPercent'>;

/**
 * Ways of sound from loudspeakers to microphones in a place, in the engine of the room model: mirrored ways, rays, and waves for the lows, which
 * in a box are its modes and in any other shape finite differences.
 */
export class SimulatedWays {
  /** samples that an impulse response needs, a power of two */
  readonly size: number;
  private readonly room: PlayedRoom;
  private readonly speed: number;
  private readonly lengthS: number;
  private readonly count: number;
  private readonly plan: LowsPlan | null;
  /** null where it is no box along the axes */
  private readonly box: { room: BoxRoom; origin: Point } | null;
  private cells: PlayedWaves | null = null;
  private readonly rays = new Map<string, PlayedRays>();
  private readonly waves = new Map<string, { heard: LowsHeard | null }>();

  /**
   * @param seed of all that is left to chance: the same place with the same seed sounds the same
   * @param rays to a microphone, in place of as many as the room asks for: fewer are quicker, and their decay is less sure
   */
  constructor(
    private readonly place: PlaceOfSound,
    private readonly rate: number,
    private readonly seed: number,
    rays: number | null = null,
  ) {
    const { shape, temperatureC, relativeHumidityPercent } = place;
    const air = { temperatureC, relativeHumidityPercent };
    // a side of no length has a wall without an area
    const faces = roomFacets(place)
      .filter((f) => facetArea(f) > 0)
      .map((f) => ({ ...f, absorption: played(f.absorption) }));
    const scene = sceneOf(faces);
    const volume = roomVolume(place) || null;
    const surfaces = faces.map(({ absorption }, f) => ({ area: scene.areas[f]!, absorption }));
    const statistics = volume === null ? null : roomStatistics(surfaces, volume, air);
    const longestS = statistics ? LONGER * Math.max(...statistics.eyring) : OPEN_S;
    const meanFreePathM = statistics?.meanFreePathM ?? 1;
    const suggested = suggestRun({ meanFreePathM, timeS: longestS, faces: faces.length }, 'usual');
    this.speed = speedOfSound(temperatureC);
    this.box = place.roomMesh ? null : boxOf(shape, air);
    const plan = volume === null ? null : lowsPlan({ faces, volume, air }, scene);
    let size = LEAST_SIZE;
    while (size < MOST_SIZE && size < longestS * rate) size *= 2;
    this.size = size;
    this.lengthS = Math.min(longestS, (0.9 * size) / rate);
    this.room = { faces, scene, volume, air, mirrored: facetOrder(faces.length) };
    this.count = rays ?? Math.min(RAYS.most, Math.max(RAYS.least, suggested.groups * suggested.raysPerGroup));
    this.plan = plan && plan.upToHz >= LEAST_WAVES_HZ ? plan : null;
  }

  /**
   * Impulse response from a loudspeaker or group to a microphone; the first sample is the moment of the drive.
   * @param all that stand in the place: what rays and waves bring from all of them to a microphone is worked out at once
   */
  impulse(
    loudspeaker: SimulatedLoudspeaker,
    all: readonly SimulatedLoudspeaker[],
    microphone: Point,
  ): Float64Array {
    const { room, rate, size, seed } = this;
    const { id } = loudspeaker;
    const receiver = this.inside(microphone);
    const at = [receiver.x, receiver.y, receiver.z].map((v) => v.toFixed(3)).join(' ');
    const channels = all.map((l) => this.boxesIn(l));
    const channel = all.findIndex((l) => l.id === id);
    const from = JSON.stringify([at, all.map(soundOf)]);
    const rays = room.volume === null ? null : this.raysAt(receiver, channels, at, from);
    return playedImpulse(room, channels[channel]!, receiver, rays && { from: rays, channel }, {
      rate,
      size,
      seed: seedFrom(seed, `pulses ${id}`),
      onAxis: loudspeakerSpectrum(modelOfLoudspeaker(loudspeaker), size, rate),
      lows: this.lows(channels, channel, receiver, from),
    });
  }

  private boxesIn(loudspeaker: SimulatedLoudspeaker): PlayedBox[] {
    return boxesOf(loudspeaker).map(({ position, axes, delayMs, inverted }) => ({
      position: this.inside(position),
      emission: boxEmission(loudspeaker, axes, this.speed),
      delayS: delayMs / 1000,
      gain: inverted ? -1 : 1,
    }));
  }

  private inside(p: Point): Point {
    return this.place.roomMesh ? p : intoRoom(this.place.shape, p);
  }

  private raysAt(
    receiver: Point,
    channels: readonly (readonly PlayedBox[])[],
    at: string,
    from: string,
  ): PlayedRays {
    const { room, lengthS, count, seed } = this;
    return keptIn(this.rays, from, MOST_MICROPHONES, () =>
      playedRays(room, channels, receiver, { rays: count, lengthS, seed: seedFrom(seed, `rays ${at}`) }),
    );
  }

  private lows(
    channels: readonly (readonly PlayedBox[])[],
    channel: number,
    receiver: Point,
    from: string,
  ): Lows | null {
    const { plan, box, rate, size, speed, room, lengthS } = this;
    const boxes = channels[channel]!;
    if (!plan) return null;
    if (box) {
      const { x, y, z } = box.origin;
      const inBox = (p: Point) => ({ x: p.x - x, y: p.y - y, z: p.z - z });
      const sources = boxes.map((b) => ({ ...b, position: inBox(b.position) }));
      const asked = { rate, size, upToHz: lowsReachHz(plan), octaves: lowsOctaves(plan) };
      return { upToHz: plan.upToHz, octaves: boxWaves(box.room, sources, inBox(receiver), asked) };
    }
    // a microphone outside finds none, and the next one may
    this.cells ??= playedWaves(room, plan, receiver);
    const { cells } = this;
    if (!cells) return null;
    const { heard } = keptIn(this.waves, from, MOST_MICROPHONES, () => {
      const points = channels.flatMap((c) => c.map((b) => b.position));
      return { heard: wavesFrom(room, cells, receiver, points, lengthS) };
    });
    if (!heard) return null;
    const first = channels.slice(0, channel).reduce((n, c) => n + c.length, 0);
    const points = boxes.map(({ delayS, gain }, i) => ({ index: first + i, delayS, gain }));
    return lowsPlayed(heard, points, { rate, size, speed });
  }
}

/** Of a loudspeaker, what its sound depends on. */
const soundOf = ({ model, role, position, aimDeg, pitchDeg, rollDeg, group }: SimulatedLoudspeaker) => [
  ...[model, role, position.x, position.y, position.z],
  ...[aimDeg, pitchDeg, rollDeg, group],
];

function boxOf(shape: SimulatedPlace['shape'], air: BoxRoom['air']): { room: BoxRoom; origin: Point } | null {
  const walls = boxWalls(shape);
  if (!walls) return null;
  const { least, most } = extentOf(shape);
  const absorption = [walls.least.x, walls.most.x, walls.least.y, walls.most.y, shape.floor, shape.roof].map(
    (f) => played(f.absorption),
  ) as unknown as BoxRoom['absorption'];
  const size = { x: most.x - least.x, y: most.y - least.y, z: most.z - least.z };
  return { room: { size, absorption, air }, origin: least };
}
