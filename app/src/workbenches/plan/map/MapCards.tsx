import { Button, Chip, SegmentedControl, Select, Switch } from '@mantine/core';
import type { Place, Project } from '@pebble-hall/core/project';
import { variantOf } from '@pebble-hall/core/project';
import { formatHz } from '../../../charts/chartMath';
import { LengthField } from '../../../parts/LengthField';
import { NumberField } from '../../../parts/NumberField';
import { NOMINAL, type MapSettings } from './mapSettings';
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
          <SegmentedControl
            aria-label="Levels shown"
            size="xs"
            data={[
              { value: 'SPL', label: 'dB SPL' },
              { value: 're home spot', label: 're home' },
            ]}
            value={s.show}
            onChange={(show) => set({ show: show as MapSettings['show'] })}
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
      </section>
      <section className="card" aria-label="Surface and air">
        <h2>Surface and air</h2>
        <div className="row">
          <SegmentedControl
            aria-label="Surface"
            size="xs"
            data={[
              { value: 'audience', label: 'audience', disabled: place.audience.length === 0 },
              { value: 'floor', label: 'whole floor' },
            ]}
            value={place.audience.length === 0 ? 'floor' : s.surface}
            onChange={(surface) => set({ surface: surface as MapSettings['surface'] })}
          />
          {s.surface === 'floor' || place.audience.length === 0 ? (
            <LengthField
              label="Height over the floor"
              value={s.heightM}
              unit={place.lengthUnit}
              min={0}
              max={50}
              onChange={(heightM) => set({ heightM })}
            />
          ) : (
            <span className="quiet">at the ears</span>
          )}
        </div>
        <Switch
          size="xs"
          label={`Air swallows, ${place.temperatureC} °C, ${place.relativeHumidityPercent} %`}
          checked={s.air}
          onChange={(e) => set({ air: e.currentTarget.checked })}
        />
        <Switch
          size="xs"
          label="The floor reflects all of it"
          checked={s.floorReflects}
          onChange={(e) => set({ floorReflects: e.currentTarget.checked })}
        />
        <small className="quiet">
          With trims, delays, polarity, crossovers and sections by hand of {variantOf(project).name}; fitted
          filters are not in it.
        </small>
      </section>
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
    if (isOff) set({ off: without(s.off, id), second: without(s.second, id) });
    else if (s.compares && !isSecond) set({ second: [...s.second, id] });
    else set({ off: [...s.off, id], second: without(s.second, id) });
  };
  const stateOf = (id: string) =>
    s.off.includes(id) ? 'silent' : s.compares ? (s.second.includes(id) ? 'B' : 'A') : 'on';
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
              {s.compares && state !== 'silent' ? `${l.name}, ${state}` : l.name}
            </Chip>
          );
        })}
      </div>
      <div className="row">
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => set({ off: s.off.length > 0 ? [] : fitted.map((l) => l.id) })}
        >
          {s.off.length > 0 ? 'All of them' : 'None of them'}
        </Button>
        {s.compares ? (
          <SegmentedControl
            aria-label="Which map"
            size="xs"
            data={['A', 'B', 'A less B']}
            value={s.look}
            onChange={(look) => set({ look: look as MapSettings['look'] })}
          />
        ) : null}
        {s.compares ? (
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
        ) : null}
      </div>
    </section>
  );
}
