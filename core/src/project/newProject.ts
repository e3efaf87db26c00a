import { LAYOUTS, layoutPosition, type LayoutChannel, type Listener } from '../layouts/index.js';
import type { Point } from '../geometry/index.js';
import {
  EAR_M,
  FINISHES,
  plainFace,
  rectangle,
  RECTANGLE_WALLS,
  seatsOf,
  type AudienceArea,
  type Group,
  type Shape,
} from '../place/index.js';
import { FILES_ONLY } from '../processing/index.js';
import { newLive } from './live.js';
import { abbreviated } from './migratePlace.js';
import type { PlaceKind } from './place.js';
import { PROJECT_VERSION, type Loudspeaker, type Place, type Project, type Spot } from './types.js';
import { firstVariant } from './variants.js';

/** All that is asked for a new project; everything can be changed later. */
export interface NewProject {
  name: string;
  kind: PlaceKind;
  /** metres along x (away from the front), y and z */
  size: Point;
  /** one of `LAYOUTS`, mains with subwoofers, fills and delays, or none */
  layoutId: string;
  /** what plays and measures */
  rig: Project['rig']['kind'];
}

/** Front mains with what goes with them in a hall. */
export const MAINS_LAYOUT = {
  id: 'mains',
  name: 'Front mains, subwoofers, fills, delays',
  source: 'placed by the proportions of the place',
} as const;
/** Nothing yet: loudspeakers are placed by hand. */
export const NO_LAYOUT = { id: 'none', name: 'None, I place them myself', source: '' } as const;

/** Sizes to begin with, metres. */
export const USUAL_SIZE: Record<PlaceKind, Point> = {
  'listening room': { x: 5.5, y: 4, z: 2.5 },
  'control room': { x: 6.5, y: 5, z: 2.9 },
  hall: { x: 24, y: 14, z: 7 },
  'open air': { x: 50, y: 36, z: 8 },
};

/** Everyone looks along -x, to where x is 0. */
export const FACING_DEG = 180;
/** A loudspeaker's middle is no nearer to a wall than this. */
const CLEAR_M = 0.3;

const cm = (v: number) => Math.round(100 * v) / 100;
const rounded = ({ x, y, z }: Point): Point => ({ x: cm(x), y: cm(y), z: cm(z) });

/** A loudspeaker as it is when nobody has said more of it. */
export const plainLoudspeaker = (
  own: Pick<Loudspeaker, 'id' | 'name' | 'role' | 'output' | 'position'> & Partial<Loudspeaker>,
): Loudspeaker => ({
  abbreviation: abbreviated(own.name),
  feed: '',
  model: own.role === 'subwoofer' ? 'Subwoofer' : 'Loudspeaker',
  aimDeg: 0,
  pitchDeg: 0,
  rollDeg: 0,
  mount: 'standing',
  group: null,
  locked: false,
  layoutLabel: null,
  fitted: true,
  ...own,
});

/** A box of three numbers, or the ground outdoors, with the surfaces usual for its kind. */
export function plainShape(kind: PlaceKind, { x, y, z }: Point): Shape {
  const { walls, floor, roof } = FINISHES[kind];
  return {
    outline: rectangle(x, y),
    heightM: z,
    floorRise: 0,
    ceiling: { kind: 'flat' },
    isEnclosed: kind !== 'open air',
    walls: RECTANGLE_WALLS.map((name) => plainFace(name, walls)),
    floor: plainFace(kind === 'open air' ? 'Ground' : 'Floor', floor),
    roof: plainFace('Ceiling', roof),
  };
}

/** A place of a kind and a size, its loudspeakers by a layout around the home spot. */
export function newPlace({ name, kind, size, layoutId }: Omit<NewProject, 'rig'>): Place {
  const shape = plainShape(kind, size);
  const isRoom = kind === 'listening room' || kind === 'control room';
  const audience = isRoom ? [] : [audienceOf(kind, size)];
  const home: Point = rounded(
    isRoom
      ? { x: 0.62 * size.x, y: size.y / 2, z: Math.min(EAR_M.seated, 0.6 * size.z) }
      : middleSeat(audience[0]!, shape, size),
  );
  const seats = isRoom ? [{ id: 'seat-1', name: 'Home seat', position: home }] : [];
  const layout = LAYOUTS.find((l) => l.id === layoutId);
  const loudspeakers = layout
    ? layoutLoudspeakers(layout.channels, { position: home, facingDeg: FACING_DEG }, size)
    : layoutId === MAINS_LAYOUT.id
      ? mainsLoudspeakers(size)
      : [];
  return {
    name,
    kind,
    lengthUnit: 'm',
    shape,
    temperatureC: 20,
    relativeHumidityPercent: 50,
    seats,
    audience,
    fixtures: [],
    underlays: [],
    models: [],
    materials: [],
    wantedS: null,
    layoutId: layout?.id ?? null,
    loudspeakers,
    spots: spotsAround(home, isRoom ? 0.35 : Math.min(3, size.y / 5)),
  };
}

/** The home spot and one to each side of it. */
const spotsAround = (home: Point, besideM: number): Spot[] =>
  [0, -besideM, besideM].map((dy, i) => ({
    id: i === 0 ? 'home' : `spot-${i + 1}`,
    name: i === 0 ? 'Home spot' : `Spot ${i + 1}`,
    position: rounded({ ...home, y: home.y + dy }),
    inAverage: true,
    weight: 1,
    surface: 'ear',
  }));

/** Rows over most of the floor, from a fifth of the length on. */
function audienceOf(kind: PlaceKind, { x, y }: Point): AudienceArea {
  const [from, to] = [0.22 * x, 0.94 * x];
  const aside = Math.min(0.1 * y, 2);
  return {
    id: 'audience-1',
    name: 'Audience',
    outline: [
      { x: cm(from), y: cm(aside) },
      { x: cm(to), y: cm(aside) },
      { x: cm(to), y: cm(y - aside) },
      { x: cm(from), y: cm(y - aside) },
    ],
    facingDeg: FACING_DEG,
    floorM: 0,
    riseM: 0,
    earM: kind === 'open air' ? EAR_M.standing : EAR_M.seated,
    // larger areas are looked at more coarsely
    rowM: cm(Math.max(0.9, Math.sqrt((x * y) / 1500))),
    seatM: cm(Math.max(0.55, Math.sqrt((x * y) / 3000))),
  };
}

/** The seat nearest to two thirds of the length, a little off the middle, where no two sides are alike. */
function middleSeat(area: AudienceArea, shape: Shape, { x, y }: Point): Point {
  const wanted = { x: 0.58 * x, y: 0.47 * y };
  const far = (p: Point) => Math.hypot(p.x - wanted.x, p.y - wanted.y);
  const seats = seatsOf(area, shape).map((s) => s.position);
  return seats.reduce((a, b) => (far(b) < far(a) ? b : a), seats[0] ?? { ...wanted, z: area.earM });
}

/** As far from the ears as the room allows all of them, up to 3 m. */
export function layoutLoudspeakers(
  channels: LayoutChannel[],
  listener: Listener,
  size: Point,
): Loudspeaker[] {
  const isWithin = (p: Point) =>
    (['x', 'y', 'z'] as const).every(
      (a) => p[a] >= Math.min(CLEAR_M, size[a] / 4) && p[a] <= size[a] - Math.min(CLEAR_M, size[a] / 4),
    );
  let radius = 3;
  const allFit = (r: number) =>
    channels.every((c) => {
      const at = layoutPosition(c, listener, r);
      return !at || isWithin(at);
    });
  while (radius > 0.6 && !allFit(radius)) radius -= 0.02;
  const subs = channels.filter((c) => c.azimuthDeg === null);
  return channels.map((c, i) => {
    const at = layoutPosition(c, listener, radius) ?? cornerOf(subs.indexOf(c), size);
    const { position: ear } = listener;
    const [dx, dy, dz] = [ear.x - at.x, ear.y - at.y, ear.z - at.z];
    const flat = Math.hypot(dx, dy);
    const isFree = c.azimuthDeg === null;
    return plainLoudspeaker({
      id: `channel-${i + 1}`,
      name: c.name,
      role: c.role,
      output: i + 1,
      position: rounded(at),
      aimDeg: flat > 0.01 ? Math.round((10 * Math.atan2(dy, dx) * 180) / Math.PI) / 10 : FACING_DEG,
      pitchDeg: isFree ? 0 : Math.round((10 * Math.atan2(dz, flat) * 180) / Math.PI) / 10,
      mount: c.elevationDeg > 0 ? 'hung' : 'standing',
      layoutLabel: c.label,
    });
  });
}

/** Subwoofers stand on the floor, the first in the front left corner, the second in the rear right one. */
function cornerOf(n: number, size: Point): Point {
  const near = { x: Math.min(0.4, size.x / 4), y: Math.min(0.4, size.y / 4) };
  const isRear = n % 2 === 1;
  return {
    x: isRear ? size.x - near.x : near.x,
    y: isRear ? size.y - near.y : near.y,
    z: Math.min(0.3, size.z / 4),
  };
}

/** Mains to both sides of the front, two subwoofers before it, two fills, a row of delays at two thirds of the length. */
function mainsLoudspeakers({ x, y, z }: Point): Loudspeaker[] {
  const front = Math.min(0.14 * x, 6);
  const high = Math.min(0.65 * z, 7);
  const aside = Math.min(0.22 * y, 0.5 * y - 0.5);
  const delays = Math.max(1, Math.round(y / 6));
  const row: Group | null =
    delays > 1 ? { kind: 'row', count: delays, spacingM: cm((0.75 * y) / delays) } : null;
  const at = (px: number, py: number, pz: number) => rounded({ x: px, y: py, z: pz });
  const down = (toX: number, fromX: number, fromZ: number) =>
    Math.round((Math.atan2(EAR_M.seated - fromZ, toX - fromX) * 180) / Math.PI);
  const list: (Pick<Loudspeaker, 'name' | 'role' | 'position'> & Partial<Loudspeaker>)[] = [
    {
      name: 'Main left',
      role: 'full range',
      position: at(front, aside, high),
      pitchDeg: down(0.6 * x, front, high),
      mount: 'hung',
    },
    {
      name: 'Main right',
      role: 'full range',
      position: at(front, y - aside, high),
      pitchDeg: down(0.6 * x, front, high),
      mount: 'hung',
    },
    { name: 'Sub left', role: 'subwoofer', position: at(front, 0.35 * y, 0.4) },
    { name: 'Sub right', role: 'subwoofer', position: at(front, 0.65 * y, 0.4) },
    { name: 'Fill left', role: 'full range', position: at(front, 0.4 * y, Math.min(1, z / 2)) },
    { name: 'Fill right', role: 'full range', position: at(front, 0.6 * y, Math.min(1, z / 2)) },
    {
      name: 'Delays',
      role: 'full range',
      position: at(0.6 * x, y / 2, high),
      pitchDeg: -25,
      mount: 'hung',
      group: row,
    },
  ];
  return list.map((l, i) => plainLoudspeaker({ id: `channel-${i + 1}`, output: i + 1, ...l }));
}

/** A project in which nothing has been measured. */
export function emptyProject(
  own: Pick<Project, 'id' | 'name' | 'place'> & { rigKind: Project['rig']['kind'] },
): Project {
  const { rigKind, ...named } = own;
  return {
    version: PROJECT_VERSION,
    ...named,
    // what is measured through real devices goes through whatever is in their chain, which nobody here can reach
    processor:
      rigKind === 'simulated'
        ? { adapter: 'stand-in', unit: named.id }
        : { adapter: 'files only', unit: named.id, profile: FILES_ONLY, inPlaceId: null },
    calibrations: {},
    rig: {
      kind: rigKind,
      pace: 'quick',
      device: null,
      microphones: [
        {
          id: 'microphone-1',
          make: 'Microphone',
          serial: '',
          pointing: 'at the source',
          input: 1,
          gainDb: 0,
          calibrationIds: [],
          calibrationId: null,
          levels: [],
        },
      ],
      microphoneId: 'microphone-1',
      alongIds: [],
      pairs: [],
      repeats: 1,
      referenceFrom: null,
      loopbackInput: 2,
      timing: 'loopback',
      clickFrom: null,
      roundTrip: null,
      distances: [],
      heardTraces: {},
      processorBefore: null,
      levelDbfs: -48,
      sweepS: 3,
      noise: null,
      checks: {},
    },
    rounds: [{ id: 'round-1', name: 'First round', startedAt: 0, note: '' }],
    roundId: 'round-1',
    families: null,
    sweeps: [],
    variants: [firstVariant()],
    variantId: 'variant-1',
    loads: [],
    pendingLoad: null,
    trials: [],
    chains: [],
    headphones: [],
    chainId: null,
    live: newLive(named.place.loudspeakers, 2),
    kept: [],
    sweepLooks: {},
    readings: [],
    libraryViews: [],
    alignSteps: [],
    roomRuns: [],
  };
}

/** @param id of the project, which nothing else in the browser has */
export const newProject = (id: string, asked: NewProject): Project =>
  emptyProject({ id, name: asked.name, place: newPlace({ ...asked, name: asked.name }), rigKind: asked.rig });
