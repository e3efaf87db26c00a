import { FOLDED_SCATTERING, SEATS_SCATTERING } from '@pebble-hall/core/materials';
import { plainFace, rectangle, type AudienceArea, type Shape } from '@pebble-hall/core/place';
import type { Fixture } from '@pebble-hall/core/project';

/** Metres: from the stage end (x = 0) to the folding doors, and across. */
const [LONG, WIDE] = [24, 13];
/** A gentle rake down to the stage, metres per metre. */
const RAKE = 0.03;

/** 24 x 13 m, eaves at 5 m, ridge along the hall at 8.5 m; slipway floor of concrete with seats, timber and brick. */
export const SLIP_HALL_SHAPE: Shape = {
  outline: rectangle(LONG, WIDE),
  heightM: 5,
  floorRise: RAKE,
  ceiling: { kind: 'ridged', along: 'x', highM: 8.5 },
  isEnclosed: true,
  walls: [
    {
      ...plainFace('Left wall, brick', [0.06, 0.06, 0.06, 0.07, 0.08, 0.09, 0.1, 0.11]),
      scattering: FOLDED_SCATTERING,
    },
    plainFace('Folding doors, timber', [0.3, 0.24, 0.16, 0.12, 0.1, 0.1, 0.11, 0.12]),
    {
      ...plainFace('Right wall, brick', [0.06, 0.06, 0.06, 0.07, 0.08, 0.09, 0.1, 0.11]),
      scattering: FOLDED_SCATTERING,
    },
    {
      ...plainFace('Stage wall, timber', [0.28, 0.22, 0.16, 0.12, 0.11, 0.11, 0.12, 0.13]),
      scattering: FOLDED_SCATTERING,
    },
  ],
  floor: {
    ...plainFace('Slipway, seats on concrete', [0.12, 0.15, 0.2, 0.26, 0.31, 0.34, 0.36, 0.37]),
    scattering: SEATS_SCATTERING,
  },
  roof: {
    ...plainFace('Roof, timber on trusses', [0.24, 0.22, 0.2, 0.18, 0.17, 0.16, 0.16, 0.17]),
    scattering: FOLDED_SCATTERING,
  },
};

const area = (
  own: Pick<AudienceArea, 'id' | 'name'> & {
    from: number;
    to: number;
    left: number;
    right: number;
    floorM?: number;
  },
): AudienceArea => ({
  id: own.id,
  name: own.name,
  outline: [
    { x: own.from, y: own.left },
    { x: own.to, y: own.left },
    { x: own.to, y: own.right },
    { x: own.from, y: own.right },
  ],
  facingDeg: 180,
  floorM: own.floorM ?? 0,
  riseM: 0,
  earM: 1.2,
  rowM: own.floorM ? 1 : 0.95,
  seatM: 0.6,
});

/** 180 seats: two blocks of twelve rows with an aisle between them, and the gallery's two rows. */
export const SLIP_HALL_AREAS: AudienceArea[] = [
  area({ id: 'stalls-left', name: 'Stalls left', from: 5.5, to: 16.9, left: 1.9, right: 5.8 }),
  area({ id: 'stalls-right', name: 'Stalls right', from: 5.5, to: 16.9, left: 7.2, right: 11.1 }),
  area({ id: 'gallery', name: 'Gallery', from: 20.6, to: 22.6, left: 1.1, right: 11.9, floorM: 2.4 }),
];

export const SLIP_HALL_FIXTURES: Fixture[] = [
  { id: 'stage', name: 'Stage', kind: 'stage', x: 0.6, y: 3, width: 3.2, depth: 7, bottom: 0, top: 0.6 },
  {
    id: 'gallery-floor',
    name: 'Gallery',
    kind: 'balcony',
    x: 20.2,
    y: 0.4,
    width: 3.2,
    depth: 12.2,
    bottom: 2.75,
    top: 3.1,
  },
  {
    id: 'doors',
    name: 'Folding doors',
    kind: 'door',
    x: 23.9,
    y: 3.5,
    width: 0.1,
    depth: 6,
    bottom: 0.72,
    top: 4.4,
  },
  {
    id: 'column-left',
    name: 'Gallery post, left',
    kind: 'column',
    x: 20.3,
    y: 3.9,
    width: 0.2,
    depth: 0.2,
    bottom: 0.6,
    top: 2.75,
  },
  {
    id: 'column-right',
    name: 'Gallery post, right',
    kind: 'column',
    x: 20.3,
    y: 8.9,
    width: 0.2,
    depth: 0.2,
    bottom: 0.6,
    top: 2.75,
  },
];
