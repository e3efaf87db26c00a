import type { Corners, Feature, Reflection } from '@pebble-hall/core/views';
import { smoothLevels, logGrid } from '@pebble-hall/core/signal';
import { formatDb, formatHz, nearestIndex } from '../../charts/chartMath';

/** One channel as the level plot shows it; curves on the 1/48-octave grid, dB. */
export interface ChannelLevels {
  id: string;
  name: string;
  band: { from: number; to: number };
  spots: Float64Array[];
  spotNames: string[];
  averageDb: Float64Array;
  lowDb: Float64Array;
  highDb: Float64Array;
  /** the same channel in the round it is compared with */
  otherDb: Float64Array | null;
  corners: Corners;
  features: Feature[];
}

export interface LevelNote {
  text: string;
  attention: boolean;
  at: { frequency: number; levelDb: number } | null;
}

const grid = logGrid();
/** So many peaks and dips are worth a sentence. */
const MOST = 4;

/** Reads the level plot aloud: one channel by its peaks, dips and first reflection; two by their difference. */
export function readLevels(channels: ChannelLevels[], reflections: Reflection[]): LevelNote[] {
  if (channels.length === 0) return [];
  if (channels.length === 1) return ofOne(channels[0]!, reflections);
  const [a, b] = channels as [ChannelLevels, ChannelLevels];
  const notes = channels.length === 2 ? [difference(a, b)] : [];
  const range = (c: ChannelLevels) =>
    `${c.name} ${formatHz(c.corners.low[6] ?? c.band.from)} to ${formatHz(c.corners.high[6] ?? c.band.to)}`;
  return [
    ...notes,
    { text: `They reach (−6 dB): ${channels.map(range).join('; ')}.`, attention: false, at: null },
  ];
}

function ofOne(c: ChannelLevels, reflections: Reflection[]): LevelNote[] {
  const notes = c.features.slice(0, MOST).map(({ frequency, offDb, count, of }): LevelNote => {
    const what = offDb > 0 ? 'Peak' : 'Dip';
    const shared = of === 1 ? '' : count === of ? ', at every spot' : `, at ${count} of ${of} spots`;
    const moves = of > 1 && count < of / 2 + 0.5;
    const advice = moves
      ? ': it moves from seat to seat, no filter mends it for all'
      : offDb > 0
        ? ': it can be cut for all of them'
        : ': filling it takes headroom';
    return {
      text: `${what} of ${formatDb(offDb)} at ${formatHz(frequency)}${shared}${advice}.`,
      attention: !moves && Math.abs(offDb) > 6,
      at: { frequency, levelDb: c.averageDb[nearestIndex(grid, frequency)]! },
    };
  });
  const [first] = reflections;
  if (first)
    notes.push({
      text: `First strong reflection ${(1000 * first.delayS).toFixed(1)} ms after the direct sound, ${first.longerM.toFixed(1)} m longer, ${formatDb(first.levelDb)}.`,
      attention: false,
      at: null,
    });
  if (notes.length === 0)
    notes.push({ text: 'No peak or dip stands out by 3 dB.', attention: false, at: null });
  return notes;
}

/** How far two channels differ where both play. */
function difference(a: ChannelLevels, b: ChannelLevels): LevelNote {
  const [from, to] = [Math.max(a.band.from, b.band.from), Math.min(a.band.to, b.band.to)];
  if (!(to > 1.2 * from))
    return { text: `${a.name} and ${b.name} play in different bands.`, attention: false, at: null };
  const [x, y] = [a, b].map((c) => smoothLevels(grid, c.averageDb, 6)) as [Float64Array, Float64Array];
  const inside = [...grid.keys()].filter((i) => grid[i]! >= from && grid[i]! <= to);
  const mean = inside.reduce((s, i) => s + x[i]! - y[i]!, 0) / inside.length;
  const most = inside.reduce(
    (m, i) => (Math.abs(x[i]! - y[i]!) > Math.abs(x[m]! - y[m]!) ? i : m),
    inside[0]!,
  );
  return {
    text: `${a.name} is ${formatDb(mean)} against ${b.name} on the mean from ${formatHz(from)} to ${formatHz(to)}; they differ most at ${formatHz(grid[most]!)}, by ${formatDb(x[most]! - y[most]!)} (1/6 octave).`,
    attention: Math.abs(mean) > 3,
    at: { frequency: grid[most]!, levelDb: a.averageDb[most]! },
  };
}
