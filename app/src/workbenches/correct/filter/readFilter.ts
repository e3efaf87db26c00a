import { rmsDistance, type ChannelDesign, type Span } from '@pebble-hall/core/correct';
import { smoothLevels } from '@pebble-hall/core/signal';
import { formatDb, formatHz } from '../../../charts/chartMath';

/** Less than this is nothing that a filter does. */
const NOTHING_DB = 0.1;
/** So near to what was asked for, nobody hears the rest. */
const AS_ASKED_DB = 0.5;

interface OtherVariant {
  name: string;
  design: ChannelDesign;
}

/** Reads a filter aloud: where it raises and lowers most, and how well the one that was made follows the one asked for. */
export function readFilter(design: ChannelDesign, grid: Float64Array, madeDb: Float64Array | null): string[] {
  const { gainDb, span } = design;
  const inside = indicesWithin(grid, span);
  const up = most(inside, (i) => gainDb[i]!);
  const down = most(inside, (i) => -gainDb[i]!);
  const parts = [
    gainDb[up]! > NOTHING_DB ? `raises most at ${formatHz(grid[up]!)}, by ${formatDb(gainDb[up]!)}` : '',
    gainDb[down]! < -NOTHING_DB
      ? `lowers most at ${formatHz(grid[down]!)}, by ${formatDb(gainDb[down]!)}`
      : '',
  ].filter(Boolean);
  const notes = [parts.length > 0 ? `The filter ${parts.join(' and ')}.` : 'The filter does nothing.'];
  if (madeDb) {
    const off = most(inside, (i) => Math.abs(madeDb[i]! - gainDb[i]!));
    const offDb = madeDb[off]! - gainDb[off]!;
    notes.push(
      Math.abs(offDb) < AS_ASKED_DB
        ? `As made it is what was asked for, within ${Math.max(0.1, Math.abs(offDb)).toFixed(1)} dB.`
        : `As made it differs most at ${formatHz(grid[off]!)}, by ${formatDb(offDb)}.`,
    );
  }
  return notes;
}

/** Reads how the variant in hand leaves a channel against another one, 1/6 octave; within both spans together. */
export function readAgainst(
  { predicted, span }: ChannelDesign,
  grid: Float64Array,
  { name, design }: OtherVariant,
): string {
  const both = { from: Math.min(span.from, design.span.from), to: Math.max(span.to, design.span.to) };
  const [here, there] = [predicted, design.predicted].map((p) => smoothLevels(grid, p.averageDb, 6)) as [
    Float64Array,
    Float64Array,
  ];
  const off = here.map((v, i) => v - there[i]!);
  const at = most(indicesWithin(grid, both), (i) => Math.abs(off[i]!));
  if (Math.abs(off[at]!) < NOTHING_DB) return `${name} leaves this channel the same.`;
  return `Beside ${name} it is ${formatDb(off[at]!)} at ${formatHz(grid[at]!)} at most; the two are ${rmsDistance(grid, here, there, both).toFixed(1)} dB RMS apart.`;
}

const indicesWithin = (grid: Float64Array, { from, to }: Span): number[] =>
  [...grid.keys()].filter((i) => grid[i]! >= from && grid[i]! <= to);

const most = (indices: number[], of: (i: number) => number): number =>
  indices.reduce((best, i) => (of(i) > of(best) ? i : best), indices[0] ?? 0);
