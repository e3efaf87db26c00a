import { Button, Chip, SegmentedControl, Select, Switch } from '@mantine/core';
import type { Place, Project } from '@pebble-hall/core/project';
import { formatHz } from '../../../charts/chartMath';
import { SurfaceCard } from './SurfaceCard';
import { NumberField } from '../../../parts/NumberField';
import { NOMINAL, type MapSettings } from './mapSettings';
import { PlaceSelect } from './PinnedPanel';
import type { LevelMap } from './useLevelMap';

const KINDS: { value: MapSettings['kind']; label: string }[] = [
  { value: 'frequency', label: 'one frequency' },
  { value: 'third', label: '1/3 octave' },
  { value: 'octave', label: 'octave' },
  { value: 'A', label: 'A-weighted' },
];
const CENTRES = NOMINAL.map((f) => ({ value: String(f), label: formatHz(f) }));

/** What a level map shows, of which signal, on which surface. */
export function MapCards({ map, project }: { map: LevelMap; project: Project }) {
  const { settings: s, set, maps, zeroDb } = map;
  const { place } = project;
  const figures = maps?.figures;

  const shown = (db: number) => `${(db - zeroDb).toFixed(1)} dB`;
  return (
    <>
      <section className="card" aria-label="Level map settings">
        <h2>
          Level map <small>direct sound only</small>
        </h2>
        <div className="row">
          <Select
            aria-label="Width of the band"
            size="xs"
            w={128}
            allowDeselect={false}
            data={KINDS}
            value={s.kind}
            onChange={(kind) => kind && set({ kind: kind as MapSettings['kind'] })}
          />
          {s.kind === 'A' ? (
            <span className="quiet">25 Hz to 20 kHz</span>
          ) : (
            <Select
              aria-label="Frequency"
              size="xs"
              w={100}
              allowDeselect={false}
              data={CENTRES}
              value={String(s.centre)}
              onChange={(v) => v && set({ centre: Number(v) })}
            />
          )}
        </div>
        <div className="row">
          <SegmentedControl
            aria-label="Sources add up"
            size="xs"
            data={[
              { value: 'coherent', label: 'as waves' },
              { value: 'power', label: 'as powers' },
            ]}
            value={s.how}
            onChange={(how) => set({ how: how as MapSettings['how'] })}
          />
          <Select
            aria-label="Levels shown"
            size="xs"
            w={118}
            allowDeselect={false}
            data={[
              { value: 'SPL', label: 'dB SPL' },
              { value: 're home spot', label: 're home spot' },
              { value: 're pinned place', label: 're pinned place', disabled: s.pinned === null },
            ]}
            value={s.show}
            onChange={(show) => show && set({ show: show as MapSettings['show'] })}
          />
        </div>
        <div className="row">
          <span>{s.kind === 'frequency' ? 'Sine' : 'Pink noise'} into each channel</span>
          <NumberField
            label="Level of the signal"
            value={s.signalDbfs}
            unit="dBFS"
            min={-80}
            max={0}
            step={1}
            digits={0}
            width={92}
            onChange={(signalDbfs) => set({ signalDbfs })}
          />
        </div>
        {s.compares ? (
          <div className="row">
            <SegmentedControl
              aria-label="Which map"
              size="xs"
              data={['A', 'B', 'A less B']}
              value={s.look}
              onChange={(look) => set({ look: look as MapSettings['look'] })}
            />
            <label className="row" style={{ gap: 6 }}>
              <span>within</span>
              <NumberField
                label="Together within"
                value={s.toleranceMs}
                unit="ms"
                min={0.1}
                max={100}
                step={1}
                width={66}
                onChange={(toleranceMs) => set({ toleranceMs })}
              />
            </label>
          </div>
        ) : null}
      </section>
      <SurfaceCard map={map} project={project} />
      <ChannelsCard map={map} place={place} />
      <section className="card" aria-label="Over the seats">
        <h2>
          Over the seats <small>{figures ? `${figures.count} seats` : ''}</small>
        </h2>
        {figures ? (
          (
            [
              ['Mean', shown(figures.meanDb)],
              ['Standard deviation', `${figures.standardDeviationDb.toFixed(1)} dB`],
              ['Least to most', `${(figures.mostDb - figures.leastDb).toFixed(1)} dB`],
              ['Without a tenth at each end', `${figures.middleDb.toFixed(1)} dB`],
              ...(maps.rowsApartDb === null
                ? []
                : [['From row to row', `${maps.rowsApartDb.toFixed(1)} dB`] as const]),
            ] as const
          ).map(([label, value]) => (
            <div key={label} className="row">
              <span>{label}</span>
              <b className="mono">{value}</b>
            </div>
          ))
        ) : (
          <span className="quiet">
            {maps && maps.seats.length === 0 ? 'No seats yet: add an audience area.' : 'Nothing sounds.'}
          </span>
        )}
        <PlaceSelect map={map} place={place} />
      </section>
    </>
  );
}

/** Which channels sound; of two maps which belongs to the second one. */
function ChannelsCard({ map, place }: { map: LevelMap; place: Place }) {
  const { settings: s, set } = map;
  const fitted = place.loudspeakers.filter((l) => l.fitted);
  const without = (list: string[], id: string) => list.filter((x) => x !== id);
  // a press goes on to the next: sounding, silent; of two maps first, second, silent
  const press = (id: string) => {
    const [isOff, isSecond] = [s.off.includes(id), s.second.includes(id)];
    if (s.solo !== null) set({ solo: s.solo === id ? null : id });
    else if (isOff) set({ off: without(s.off, id), second: without(s.second, id) });
    else if (s.compares && !isSecond) set({ second: [...s.second, id] });
    else set({ off: [...s.off, id], second: without(s.second, id) });
  };
  const stateOf = (id: string) =>
    s.solo !== null
      ? s.solo === id
        ? 'alone'
        : 'silent'
      : s.off.includes(id)
        ? 'silent'
        : s.compares
          ? s.second.includes(id)
            ? 'B'
            : 'A'
          : 'on';
  return (
    <section className="card" aria-label="Channels in the map">
      <h2>
        Channels
        <Switch
          size="xs"
          label="two maps, A and B"
          checked={s.compares}
          onChange={(e) => set({ compares: e.currentTarget.checked })}
        />
      </h2>
      <div style={{ display: 'flex', flexWrap: 'wrap', gap: 5, overflow: 'auto' }}>
        {fitted.map((l) => {
          const state = stateOf(l.id);
          return (
            <Chip
              key={l.id}
              size="xs"
              color={state === 'B' ? 'buoy' : undefined}
              checked={state !== 'silent'}
              onChange={() => press(l.id)}
              aria-label={`${l.name}: ${state}`}
            >
              {state === 'A' || state === 'B' ? `${l.name}, ${state}` : l.name}
            </Chip>
          );
        })}
      </div>
      <div className="row">
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => set({ solo: null, off: s.off.length > 0 ? [] : fitted.map((l) => l.id) })}
        >
          {s.off.length > 0 ? 'All of them' : 'None of them'}
        </Button>
        <Button
          size="compact-xs"
          variant={s.solo === null ? 'default' : 'light'}
          title="N, back with Shift and N"
          onClick={() => map.soloNext(1)}
        >
          One by one (N)
        </Button>
      </div>
      {s.compares ? (
        <div className="row compact-fields">
          <span>B tried</span>
          <NumberField
            label="B louder by"
            value={s.secondDb}
            unit="dB"
            min={-60}
            max={60}
            step={1}
            width={76}
            onChange={(secondDb) => set({ secondDb })}
          />
          <NumberField
            label="B later by"
            value={s.secondMs}
            unit="ms"
            min={0}
            max={1000}
            step={1}
            width={84}
            onChange={(secondMs) => set({ secondMs })}
          />
        </div>
      ) : null}
    </section>
  );
}
