import { designWithBass, type BassSum, type ChannelDesign } from '@pebble-hall/core/correct';
import type { DesignGround } from '@pebble-hall/core/jobs';
import { fittedOf, type Correction } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import type { Job } from './derivation';
import type { Designs, ExactFilters } from './exactFilters';
import { runJob } from './jobs';
import { crossoverGround } from './crossoverGround';

const grid = logGrid();

export interface BassAsked {
  ground: DesignGround;
  correction: Correction;
  filters: ExactFilters;
}

/** Channels that send their bass to the subwoofers, each with what both make together over the spots. */
export type BassSums = ReadonlyMap<string, BassSum>;
export const NO_SUMS: BassSums = new Map();

/** What channels and their bass make together. */
export async function readBassSums(
  { ground, correction, filters }: BassAsked,
  { signal }: Partial<Job> = {},
): Promise<BassSums> {
  const sums = new Map<string, BassSum>();
  const fitted = fittedOf(ground);
  if (!fitted.some((l) => l.role === 'subwoofer' && filters.exact.has(l.id))) return sums;
  for (const { id, role } of fitted) {
    if (role !== 'full range' || !filters.exact.has(id)) continue;
    const { request, setting, sent } = await crossoverGround({ ground, correction, filters, mainId: id });
    if (!sent) continue;
    const reading = await runJob('design.crossover', { request, setting, low: null }, { signal });
    const crossoverHz = setting.lowPass?.frequency ?? setting.highPass?.frequency;
    if (crossoverHz === undefined) continue;
    const { frequency, sumDb, sumRange } = reading;
    sums.set(id, {
      frequency,
      sumDb,
      sumRange,
      crossoverHz,
      trimDb: correction.alignment[id]?.trimDb ?? 0,
    });
  }
  return sums;
}

/** Designs as they will play: those of channels that send their bass with it. @param subId one of the subwoofers */
export function withBass(designs: Designs, sums: BassSums, subId: string | null): Designs {
  const sub = subId === null ? undefined : designs.get(subId);
  if (!sub || sums.size === 0) return designs;
  const join = (design: ChannelDesign): ChannelDesign => {
    const sum = sums.get(design.id);
    return sum ? designWithBass(grid, design, sub, sum) : design;
  };
  return new Map([...designs].map(([id, design]) => [id, join(design)]));
}
