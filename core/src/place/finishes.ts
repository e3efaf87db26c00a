import type { PerOctave } from '../room/octaves.js';

/** What the surfaces of a kind of place swallow before anybody has said, per octave from 63 Hz to 8 kHz. */
export interface Finish {
  walls: PerOctave;
  floor: PerOctave;
  roof: PerOctave;
}

/** Plasterboard with shelves and drapes, carpet and sofa, plaster ceiling. */
const FURNISHED: Finish = {
  walls: [0.24, 0.2, 0.17, 0.17, 0.19, 0.21, 0.22, 0.23],
  floor: [0.15, 0.17, 0.24, 0.35, 0.43, 0.49, 0.53, 0.55],
  roof: [0.25, 0.2, 0.14, 0.11, 0.1, 0.11, 0.12, 0.13],
};
/** Porous absorbers of 10 cm on half of the walls and of the ceiling, carpet. */
const TREATED: Finish = {
  walls: [0.28, 0.35, 0.45, 0.52, 0.54, 0.55, 0.55, 0.55],
  floor: [0.12, 0.13, 0.18, 0.28, 0.36, 0.42, 0.46, 0.48],
  roof: [0.3, 0.38, 0.5, 0.58, 0.6, 0.6, 0.6, 0.6],
};
/** Brick and timber, upholstered seats over two thirds of the floor, timber roof. */
const HALL: Finish = {
  walls: [0.12, 0.1, 0.08, 0.08, 0.09, 0.1, 0.11, 0.12],
  floor: [0.22, 0.28, 0.34, 0.4, 0.44, 0.46, 0.47, 0.47],
  roof: [0.2, 0.16, 0.12, 0.1, 0.1, 0.1, 0.11, 0.12],
};
/** Grass. */
const MEADOW: Finish = {
  walls: HALL.walls,
  floor: [0.1, 0.12, 0.2, 0.35, 0.45, 0.5, 0.55, 0.55],
  roof: HALL.roof,
};

/** By kind of place. Typical values for constructions of this kind, to rehearse with; they are no measurement. */
export const FINISHES = {
  'listening room': FURNISHED,
  'control room': TREATED,
  hall: HALL,
  'open air': MEADOW,
} as const satisfies Record<string, Finish>;
