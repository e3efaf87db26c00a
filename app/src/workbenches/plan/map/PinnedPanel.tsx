import { seatsOfPlace } from '@pebble-hall/core/place';
import { ActionIcon, Select } from '@mantine/core';
import { IconX } from '../../../icons';
import type { Place } from '@pebble-hall/core/project';
import { smoothLevels } from '@pebble-hall/core/signal';
import { ResponseChart } from '../../../charts/ResponseChart';
import { MOST_SEATS } from './makeMaps';
import type { PinnedResponse } from './pinnedResponse';
import type { LevelMap } from './useLevelMap';

const COLOURS = ['trace-kelp', 'trace-buoy', 'trace-mussel', 'trace-heather'];
const HOME = 'Home spot';
/** Curves are averaged over this part of an octave: what an ear tells apart. */
const SMOOTHED = 6;
/** From the loudest down so much is seen, dB. */
const DEEP_DB = 42;

/** Which place is looked at by itself: pressed in the map, or chosen here. */
export function PlaceSelect({ map, place }: { map: LevelMap; place: Place }) {
  const { pinned } = map.settings;
  const seats = seatsOfPlace(place, MOST_SEATS);
  const names = [...new Set([HOME, ...seats.map((s) => s.name)])];
  const choose = (name: string | null) => {
    const position = name === HOME ? place.spots[0]!.position : seats.find((s) => s.name === name)?.position;
    map.set({ pinned: name && position ? { name, position } : null });
  };
  return (
    <Select
      aria-label="Place that is looked at"
      size="xs"
      searchable
      clearable
      limit={60}
      placeholder="Press a seat, or choose it"
      data={pinned && !names.includes(pinned.name) ? [pinned.name, ...names] : names}
      value={pinned?.name ?? null}
      onChange={choose}
    />
  );
}

/** What arrives at one place over frequency: of all that sounds, and of the loudest channels alone. */
export function PinnedPanel({ map, place }: { map: LevelMap; place: Place }) {
  'use memo';
  const { settings, set, response } = map;
  const { pinned } = settings;
  const nameOf = (id: string) => place.loudspeakers.find((l) => l.id === id)?.name ?? id;
  const traces = response
    ? [
        ...response.channels.map(({ id, levels }, i) => ({
          id,
          label: nameOf(id),
          role: 'reference' as const,
          colour: COLOURS[(i + 1) % COLOURS.length]!,
          levels: drawn(response, levels),
        })),
        ...[response.first, response.second].flatMap((levels, i) =>
          levels
            ? [
                {
                  id: i === 0 ? 'A' : 'B',
                  label: response.second ? (i === 0 ? 'map A' : 'map B') : 'all of them',
                  role: 'predicted' as const,
                  colour: i === 0 ? 'trace-slate' : 'trace-campion',
                  levels: drawn(response, levels),
                },
              ]
            : [],
        ),
      ]
    : [];
  const top = traces.reduce((most, t) => t.levels.reduce((a, v) => (v > a ? v : a), most), -Infinity);
  if (!pinned) return null;
  return (
    <section
      className="plot"
      aria-label="At one place"
      style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr) auto', gap: 4, padding: 10 }}
    >
      <div className="row">
        <b>{pinned.name}</b>
        <ActionIcon variant="default" aria-label="Look at no place" onClick={() => set({ pinned: null })}>
          <IconX size={14} />
        </ActionIcon>
      </div>
      {response && top > SILENT_DB ? (
        <div style={{ position: 'relative', minHeight: 0 }}>
          <ResponseChart
            label={`Response at ${pinned.name}`}
            frequency={response.frequency}
            traces={traces}
            range={{ lowDb: 5 * Math.ceil(top / 5) - DEEP_DB, highDb: 5 * Math.ceil(top / 5) }}
            levelLabel="dB SPL"
            absolute
          />
        </div>
      ) : (
        <span className="quiet">{response ? 'Nothing sounds.' : 'Working it out …'}</span>
      )}
      <small className="quiet">
        Direct sound of a sine of {settings.signalDbfs} dBFS at each frequency, averaged over 1/{SMOOTHED}{' '}
        octave.
      </small>
    </section>
  );
}

/** Silence lies below all that is seen. */
const SILENT_DB = -60;
const drawn = ({ frequency }: PinnedResponse, levels: Float64Array) =>
  smoothLevels(
    frequency,
    levels.map((v) => Math.max(SILENT_DB, v)),
    SMOOTHED,
  );
