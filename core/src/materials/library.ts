import type { PerOctave } from '../room/octaves.js';

/** What a surface is made of, as far as sound goes: shares of the energy per octave from 63 Hz to 8 kHz. */
export interface Material {
  id: string;
  name: string;
  /** what it is for, to find it by */
  kind: 'hard' | 'light walls' | 'floors' | 'fabrics' | 'people and seats' | 'openings';
  absorption: PerOctave;
  /** of what is not swallowed, what goes everywhere and not as from a mirror */
  scattering: PerOctave;
  /** where its absorption comes from */
  source: string;
}

/** The table of coefficients that textbooks print, in octaves from 125 Hz to 4 kHz. */
const TABLES =
  'Coefficients as handbooks print them (Harris, Handbook of Acoustical Measurements and Noise Control, 3rd ed. 1991; Everest and Pohlmann, Master Handbook of Acoustics), 125 Hz to 4 kHz; 63 Hz as at 125 Hz, 8 kHz as at 4 kHz; scattering estimated by its unevenness';
const BY_DEFINITION = 'By definition';

/** Six octaves as they are printed, with the outer ones going on. */
const printed = (...six: [number, number, number, number, number, number]): PerOctave => [
  six[0],
  ...six,
  six[5],
];
/** By how uneven a surface is: nearly flat; panels and joints; deep as a hand; as rows of seats. */
const SMOOTH = [0.05, 0.05, 0.05, 0.05, 0.05, 0.05, 0.05, 0.05] as const;
const JOINTED = [0.05, 0.05, 0.06, 0.08, 0.1, 0.12, 0.15, 0.18] as const;
export const FOLDED = [0.05, 0.1, 0.15, 0.25, 0.35, 0.45, 0.5, 0.5] as const;
export const SEATS = [0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.7, 0.7] as const;

const of = (
  id: string,
  name: string,
  kind: Material['kind'],
  absorption: PerOctave,
  scattering: PerOctave,
  source = TABLES,
): Material => ({ id, name, kind, absorption, scattering, source });

/** Generic building materials, people and seats. */
export const MATERIALS: readonly Material[] = [
  of('brick', 'Brick, unglazed', 'hard', printed(0.03, 0.03, 0.03, 0.04, 0.05, 0.07), JOINTED),
  of('painted-brick', 'Brick, painted', 'hard', printed(0.01, 0.01, 0.02, 0.02, 0.02, 0.03), JOINTED),
  of(
    'concrete-block',
    'Concrete block, coarse',
    'hard',
    printed(0.36, 0.44, 0.31, 0.29, 0.39, 0.25),
    JOINTED,
  ),
  of('painted-block', 'Concrete block, painted', 'hard', printed(0.1, 0.05, 0.06, 0.07, 0.09, 0.08), SMOOTH),
  of('concrete', 'Concrete or terrazzo', 'hard', printed(0.01, 0.01, 0.015, 0.02, 0.02, 0.02), SMOOTH),
  of('plaster', 'Plaster on brick or tile', 'hard', printed(0.013, 0.015, 0.02, 0.03, 0.04, 0.05), SMOOTH),
  of('marble', 'Marble or glazed tile', 'hard', printed(0.01, 0.01, 0.01, 0.01, 0.02, 0.02), SMOOTH),
  of('heavy-glass', 'Glass, large heavy panes', 'hard', printed(0.18, 0.06, 0.04, 0.03, 0.02, 0.02), SMOOTH),
  of('window', 'Window glass', 'light walls', printed(0.35, 0.25, 0.18, 0.12, 0.07, 0.04), JOINTED),
  of(
    'gypsum',
    'Gypsum board, 13 mm on studs',
    'light walls',
    printed(0.29, 0.1, 0.05, 0.04, 0.07, 0.09),
    SMOOTH,
  ),
  of('lath', 'Plaster on lath', 'light walls', printed(0.14, 0.1, 0.06, 0.05, 0.04, 0.03), SMOOTH),
  of(
    'plywood',
    'Plywood panelling, 10 mm',
    'light walls',
    printed(0.28, 0.22, 0.17, 0.09, 0.1, 0.11),
    JOINTED,
  ),
  of('wood-floor', 'Wood floor on joists', 'floors', printed(0.15, 0.11, 0.1, 0.07, 0.06, 0.07), SMOOTH),
  of('parquet', 'Wood parquet on concrete', 'floors', printed(0.04, 0.04, 0.07, 0.06, 0.06, 0.07), SMOOTH),
  of(
    'linoleum',
    'Linoleum or cork on concrete',
    'floors',
    printed(0.02, 0.03, 0.03, 0.03, 0.03, 0.02),
    SMOOTH,
  ),
  of('carpet', 'Carpet, heavy, on concrete', 'floors', printed(0.02, 0.06, 0.14, 0.37, 0.6, 0.65), SMOOTH),
  of(
    'carpet-on-felt',
    'Carpet, heavy, on felt',
    'floors',
    printed(0.08, 0.24, 0.57, 0.69, 0.71, 0.73),
    SMOOTH,
  ),
  of('water', 'Water', 'floors', printed(0.008, 0.008, 0.013, 0.015, 0.02, 0.025), SMOOTH),
  of(
    'light-drape',
    'Drape, light, hung straight',
    'fabrics',
    printed(0.03, 0.04, 0.11, 0.17, 0.24, 0.35),
    SMOOTH,
  ),
  of(
    'medium-drape',
    'Drape, medium, draped to half',
    'fabrics',
    printed(0.07, 0.31, 0.49, 0.75, 0.7, 0.6),
    FOLDED,
  ),
  of(
    'heavy-drape',
    'Drape, heavy, draped to half',
    'fabrics',
    printed(0.14, 0.35, 0.55, 0.72, 0.7, 0.65),
    FOLDED,
  ),
  of(
    'audience',
    'Audience in upholstered seats',
    'people and seats',
    printed(0.6, 0.74, 0.88, 0.96, 0.93, 0.85),
    SEATS,
  ),
  of(
    'cloth-seats',
    'Cloth seats, empty',
    'people and seats',
    printed(0.49, 0.66, 0.8, 0.88, 0.82, 0.7),
    SEATS,
  ),
  of(
    'leather-seats',
    'Leather seats, empty',
    'people and seats',
    printed(0.44, 0.54, 0.6, 0.62, 0.58, 0.5),
    SEATS,
  ),
  of('pews', 'Wooden pews, occupied', 'people and seats', printed(0.57, 0.61, 0.75, 0.86, 0.91, 0.86), SEATS),
  of(
    'wooden-seats',
    'Wooden seats, empty',
    'people and seats',
    printed(0.15, 0.19, 0.22, 0.39, 0.38, 0.3),
    SEATS,
  ),
  of(
    'opening',
    'Opening into the open',
    'openings',
    [1, 1, 1, 1, 1, 1, 1, 1],
    [0, 0, 0, 0, 0, 0, 0, 0],
    BY_DEFINITION,
  ),
];

/** Of a surface of which nobody has said how uneven it is: panels and joints. */
export const USUAL_SCATTERING: PerOctave = JOINTED;
