import { evennessOf, MIDDLE_OCTAVES, sectorOf, SECTORS, STRETCHES_S, stretchOf } from './sectors.js';
import type { Heard } from './heard.js';

/**
 * Where sound comes from after the direct sound, which is left out: for each of `STRETCHES_S` the energy from each of `SECTORS`,
 * octaves of 500 Hz to 2 kHz together.
 * @returns null where it was not kept
 */
export function directionsHeard({ directions, arrivals }: Heard): Float64Array[] | null {
  if (!directions) return null;
  const all = STRETCHES_S.map((_, s) => directions.slice(s * SECTORS, (s + 1) * SECTORS));
  for (const { laterS, energy, going, faces } of arrivals) {
    if (faces.length === 0) continue;
    const row = all[stretchOf(laterS)]!;
    const sector = sectorOf(-going.x, -going.y, -going.z);
    row[sector] = row[sector]! + MIDDLE_OCTAVES.reduce((sum, o) => sum + energy[o]!, 0);
  }
  return all;
}

/** How evenly sound comes from all around, early (within the first of `STRETCHES_S`) and late (all others); null where it was not kept. */
export function evennessHeard(heard: Heard): { early: number; late: number } | null {
  const all = directionsHeard(heard);
  if (!all) return null;
  const late = new Float64Array(SECTORS);
  for (const row of all.slice(1)) row.forEach((e, i) => (late[i] = late[i]! + e));
  return { early: evennessOf(all[0]!), late: evennessOf(late) };
}
