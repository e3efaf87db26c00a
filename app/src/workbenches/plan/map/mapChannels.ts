import {
  coverageChannel,
  MOST_SOURCES,
  settingsPath,
  type ChannelOf,
  type SettingsInMap,
} from '@pebble-hall/core/coverage';
import type { ExactChannel } from '@pebble-hall/core/correct';
import type { Loudspeaker, Place } from '@pebble-hall/core/project';
import QuickLRU from 'quick-lru';
import { runJob, type AskedModel } from '../../../services/jobs';
import { modelOf } from '../../../services/placeModels';
import type { MapSettings } from './mapSettings';

/** A channel with its model as it is asked for. */
export type MapChannel = ChannelOf<AskedModel>;

/** What the channels of a map are made from. */
export interface ChannelsAsked {
  place: Pick<Place, 'loudspeakers' | 'models'>;
  settings: Pick<MapSettings, 'off' | 'compares' | 'second' | 'solo' | 'secondDb' | 'secondMs'>;
  correction: SettingsInMap;
  /** filters that were worked out from measurements, by channel; null where there are none, or they are left out */
  filters: ReadonlyMap<string, Pick<ExactChannel, 'fir' | 'sections'>> | null;
  rate: number;
}

/** Response of a FIR at some frequencies. */
export type FirResponse = (
  fir: Float32Array,
  rate: number,
  frequency: Float64Array,
) => Promise<{ re: Float64Array; im: Float64Array }>;

/** As worked out before, by the filter and by where: a hand that drags asks for the same again and again, of the map and of the pinned place. */
const known = new WeakMap<Float32Array, QuickLRU<string, ReturnType<FirResponse>>>();
const MOST_GRIDS = 6;

const inWorker: FirResponse = (fir, rate, frequency) => {
  const key = `${rate} ${frequency.length} ${frequency[0]} ${frequency.at(-1)}`;
  const traces = known.get(fir) ?? new QuickLRU({ maxSize: MOST_GRIDS });
  known.set(fir, traces);
  const before = traces.get(key);
  if (before) return before;
  const trace = runJob('coverage.filter', { fir, rate, frequency });
  traces.set(key, trace);
  trace.catch(() => traces.delete(key));
  return trace;
};

/** All channels that are fitted, and which of them sound in the first and in the second of two maps. */
export async function mapChannels(
  { place, settings, correction, filters, rate }: ChannelsAsked,
  frequency: Float64Array,
  response: FirResponse = inWorker,
): Promise<{ all: MapChannel[]; first: MapChannel[]; others: MapChannel[] }> {
  const all = await Promise.all(place.loudspeakers.filter((l) => l.fitted).map((l) => channelOf(l)));
  const boxes = all.reduce((sum, c) => sum + c.boxes.length, 0);
  if (boxes > MOST_SOURCES)
    throw new Error(
      `The map takes ${MOST_SOURCES.toLocaleString('en')} boxes; there are ${boxes.toLocaleString('en')}. Say of some channels that they are not fitted.`,
    );
  const { off, compares, second, solo } = settings;
  const isSolo = solo !== null && all.some((c) => c.id === solo);
  const on = all.filter((c) => (isSolo ? c.id === solo : !off.includes(c.id)));
  const isSecond = (c: MapChannel) => compares && !isSolo && second.includes(c.id);
  return { all, first: on.filter((c) => !isSecond(c)), others: on.filter(isSecond).map(tried) };

  /** What is tried of the second map: its level and delay against the first. */
  function tried(c: MapChannel): MapChannel {
    const { gainDb, delayS } = c.path;
    return {
      ...c,
      path: { ...c.path, gainDb: gainDb + settings.secondDb, delayS: delayS + settings.secondMs / 1000 },
    };
  }

  async function channelOf(l: Loudspeaker): Promise<MapChannel> {
    const filter = filters?.get(l.id);
    const sections = filter ? { ...correction.sections, [l.id]: filter.sections } : correction.sections;
    const channel = coverageChannel(l, modelOf(place, l), settingsPath(l, { ...correction, sections }, rate));
    return filter?.fir ? { ...channel, filter: await response(filter.fir, rate, frequency) } : channel;
  }
}
