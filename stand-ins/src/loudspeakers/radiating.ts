import type { RadiatingModel, Radiator, Way, WayFilter } from '@pebble-hall/core/directivity';
import type { LoudspeakerModel } from '@pebble-hall/core/room';
import {
  AVOCET_8,
  CORMORANT_18,
  CURLEW_15,
  DUNLIN_6,
  EIDER_10,
  KNOT_6,
  PLOVER_6,
  REDSHANK_8,
  SANDERLING_5,
  TERN_12,
} from './models.js';

const cone = (radiusM: number, sphereM: number): Radiator => ({ kind: 'cap', radiusM, sphereM });
const opening = (widthM: number, heightM: number, sphereM: number): Radiator => ({
  kind: 'opening',
  widthM,
  heightM,
  sphereM,
});
const below = (frequency: number): WayFilter => ({ kind: 'low-pass', frequency, order: 4 });
const above = (frequency: number): WayFilter => ({ kind: 'high-pass', frequency, order: 4 });
const way = (radiator: Radiator, filters: WayFilter[], up = 0, gainDb = 0): Way => ({
  radiator,
  ahead: 0,
  left: 0,
  up,
  gainDb,
  filters,
});

type Invented = Pick<RadiatingModel, 'about' | 'largestDb' | 'sensitivityDb'> & {
  model: LoudspeakerModel;
  ways: Way[];
};

/**
 * How our loudspeakers radiate: worked out from radiators of physics. A cone is a cap that moves on a rigid sphere about as large
 * as its cabinet; a horn or a ribbon is a rectangular opening on such a sphere; a ceiling is an endless baffle.
 */
const INVENTED: readonly Invented[] = [
  {
    model: DUNLIN_6,
    about: 'Two ways: a cone of 13 cm, and one of 2.5 cm above it, meeting at 2.2 kHz',
    ways: [way(cone(0.065, 0.15), [below(2200)], -0.06), way(cone(0.0125, 0.15), [above(2200)], 0.06)],
    largestDb: 108,
    sensitivityDb: 86,
  },
  {
    model: PLOVER_6,
    about: 'Coaxial: a cone of 13 cm and a small horn in its middle, meeting at 1.8 kHz',
    ways: [way(cone(0.065, 0.14), [below(1800)]), way(opening(0.06, 0.06, 0.14), [above(1800)])],
    largestDb: 114,
    sensitivityDb: 90,
  },
  {
    model: SANDERLING_5,
    about: 'Two ways: a cone of 11 cm, and one of 2.5 cm above it, meeting at 2.5 kHz',
    ways: [way(cone(0.055, 0.12), [below(2500)], -0.05), way(cone(0.0125, 0.12), [above(2500)], 0.05)],
    largestDb: 112,
    sensitivityDb: 88,
  },
  {
    model: TERN_12,
    about: 'Two ways: a cone of 26 cm, and a horn of 22 by 15 cm above it, meeting at 1.3 kHz',
    ways: [way(cone(0.13, 0.24), [below(1300)], -0.13), way(opening(0.22, 0.15, 0.24), [above(1300)], 0.15)],
    largestDb: 130,
    sensitivityDb: 97,
  },
  {
    model: CURLEW_15,
    about:
      'Three ways: a cone of 33 cm, a horn of 30 by 25 cm, and one of 12 by 6 cm, meeting at 450 Hz and 3.5 kHz',
    ways: [
      way(cone(0.165, 0.32), [below(450)], -0.25),
      way(opening(0.3, 0.25, 0.32), [above(450), below(3500)], 0.08),
      way(opening(0.12, 0.06, 0.32), [above(3500)], 0.28),
    ],
    largestDb: 138,
    sensitivityDb: 101,
  },
  {
    model: AVOCET_8,
    about:
      'Element of a line: two cones of 17 cm side by side, and a ribbon as high as the box, meeting at 1.1 kHz',
    ways: [
      { ...way(cone(0.085, 0.22), [below(1100)], 0, -6), left: 0.18 },
      { ...way(cone(0.085, 0.22), [below(1100)], 0, -6), left: -0.18 },
      way(opening(0.035, 0.235, 0.22), [above(1100)]),
    ],
    largestDb: 134,
    sensitivityDb: 99,
  },
  {
    model: REDSHANK_8,
    about: 'A column: eight cones of 6 cm above each other, 9 cm apart',
    ways: Array.from({ length: 8 }, (_, i) => way(cone(0.03, 0.08), [], 0.09 * (i - 3.5), -18)),
    largestDb: 120,
    sensitivityDb: 93,
  },
  {
    model: KNOT_6,
    about:
      'In a ceiling: a cone of 13 cm in an endless baffle, and one of 2 cm in its middle, meeting at 2.4 kHz',
    ways: [
      way({ kind: 'piston', radiusM: 0.065 }, [below(2400)]),
      way({ kind: 'piston', radiusM: 0.01 }, [above(2400)]),
    ],
    largestDb: 110,
    sensitivityDb: 89,
  },
  {
    model: EIDER_10,
    about: 'A cone of 21 cm in a cabinet',
    ways: [way(cone(0.105, 0.22), [])],
    largestDb: 114,
    sensitivityDb: 88,
  },
  {
    model: CORMORANT_18,
    about: 'A cone of 39 cm in a cabinet',
    ways: [way(cone(0.195, 0.4), [])],
    largestDb: 134,
    sensitivityDb: 97,
  },
];

/** All of them, as the map takes them. */
export const RADIATING: readonly RadiatingModel[] = INVENTED.map(({ model, ways, ...rest }) => {
  const { name, low, high, resonances } = model;
  return {
    ...rest,
    name,
    axis: { kind: 'filters', low, high, resonances },
    radiation: { kind: 'ways', ways },
  };
});

/** How a model radiates; one that is not ours as the small one of its role. */
export const radiatingOf = (name: string, role: 'full range' | 'subwoofer'): RadiatingModel =>
  RADIATING.find((m) => m.name === name) ??
  RADIATING.find((m) => m.name === (role === 'subwoofer' ? EIDER_10.name : DUNLIN_6.name))!;
