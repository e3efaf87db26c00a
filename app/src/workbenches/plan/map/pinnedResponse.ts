import { logGrid } from '@pebble-hall/core/signal';
import type { Point } from '@pebble-hall/core/geometry';
import { runJob } from '../../../services/jobs';
import { soundOf, type MapAsked } from './makeMaps';
import { mapChannels } from './mapChannels';

export interface ResponseAsked extends Omit<MapAsked, 'reachOf' | 'perThird'> {
  point: Point;
}

/** Direct sound at one place over frequency, dB SPL for a sine of the signal's level. */
export interface PinnedResponse {
  frequency: Float64Array;
  first: Float64Array | null;
  second: Float64Array | null;
  /** of the loudest channels each alone */
  channels: { id: string; levels: Float64Array }[];
}

export const RESPONSE_GRID = logGrid(20, 20_000, 24);
/** More curves than this are no help. */
const MOST_ALONE = 4;

/** What is heard at the place that is pinned. */
export async function makeResponse(
  asked: ResponseAsked,
  { signal }: { signal: AbortSignal },
): Promise<PinnedResponse> {
  const { place, settings, point } = asked;
  const { first, others } = await mapChannels(asked, RESPONSE_GRID);
  const sound = soundOf(place, settings);
  const levelsOf = (channels: typeof first) =>
    channels.length === 0
      ? Promise.resolve(null)
      : runJob('coverage.response', { channels, ...sound, point, frequency: RESPONSE_GRID }, { signal });
  const all = [...first, ...others];
  // one by itself is the sum already
  const alone = await Promise.all(
    (all.length < 2 ? [] : all).map(async (c) => ({ id: c.id, levels: (await levelsOf([c]))! })),
  );
  const loudness = (levels: Float64Array) => levels.reduce((sum, v) => sum + 10 ** (v / 10), 0);
  return {
    frequency: RESPONSE_GRID,
    first: await levelsOf(first),
    second: await levelsOf(others),
    channels: alone.sort((a, b) => loudness(b.levels) - loudness(a.levels)).slice(0, MOST_ALONE),
  };
}
