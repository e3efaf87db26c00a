import { needAbove } from '../limits/index.js';
import { facetOrder } from '../room/index.js';

/** So many groups a run begins with: errors are told from their differences. */
export const FIRST_GROUPS = 10;

/** How sure the times of a run are to be on the median, in just-noticeable differences. */
export const ACCURACIES = { quick: 2, usual: 1, fine: 0.5 } as const;
export type Accuracy = keyof typeof ACCURACIES;

/**
 * As found by runs of a furnished room of 60 m^3 and a hall of 2000 m^3: the error of T20 in an octave is 0.45 differences with 8000 rays
 * where sound goes 2.5 m from face to face, and grows a little faster than that way.
 */
const FOUND = { rays: 8000, error: 0.45, wayM: 2.48, power: 1.1 };
const MOST = 2_000_000;
/** With fewer, single rays that stay between two hard walls weigh too much, and all receivers share their error. */
const LEAST = { quick: 1000, usual: 3500, fine: 8000 } as const satisfies Record<Accuracy, number>;
/** Times need 35 dB of the decay and more, with some at its end that does not count. */
const LONGER = 1.3;
/** More orders of mirrors than this change little, as faces scatter. */
const MOST_MIRRORED = 3;

export interface SuggestedRun {
  raysPerGroup: number;
  groups: number;
  lengthS: number;
  mirrored: number;
}

/**
 * What a run needs.
 * @param meanFreePathM 4 V / S @param timeS the longest reverberation time that statistics expect
 */
export function suggestRun(
  { meanFreePathM, timeS, faces }: { meanFreePathM: number; timeS: number; faces: number },
  accuracy: Accuracy,
): SuggestedRun {
  needAbove('suggestRun', 'mean free path in m', meanFreePathM, 0);
  needAbove('suggestRun', 'reverberation time in s', timeS, 0);
  const error = FOUND.error * (meanFreePathM / FOUND.wayM) ** FOUND.power;
  const rays = Math.min(MOST, Math.max(LEAST[accuracy], FOUND.rays * (error / ACCURACIES[accuracy]) ** 2));
  return {
    raysPerGroup: roundUp(rays / FIRST_GROUPS),
    groups: FIRST_GROUPS,
    lengthS: Math.min(20, Math.max(0.3, Math.ceil(10 * LONGER * timeS) / 10)),
    mirrored: Math.min(MOST_MIRRORED, facetOrder(faces)),
  };
}

/** Up to two digits that one can say. */
function roundUp(value: number): number {
  const step = 10 ** Math.floor(Math.log10(value)) / 2;
  return Math.ceil(value / step) * step;
}

/** How many times the rays an error asks for to come down to one just-noticeable difference; 1 where it is there. */
export const timesTheRays = (errorNoticeable: number): number => Math.max(1, Math.ceil(errorNoticeable ** 2));
