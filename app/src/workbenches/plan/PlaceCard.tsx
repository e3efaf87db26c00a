import { SegmentedControl, Select, Switch } from '@mantine/core';
import { PLACE_KINDS, type PlaceKind, type Project } from '@pebble-hall/core/project';
import { NumberField } from '../../parts/NumberField';
import { editPlace } from './usePlan';

/** What kind of place it is, its name, its air, and in which unit lengths are told. */
export function PlaceCard({ project }: { project: Project }) {
  const { place } = project;
  const rename = (name: string) =>
    name && name !== place.name && void editPlace(`the place is ${name}`, (p) => ({ ...p, name }));
  return (
    <section className="card" aria-label="Place">
      <h2>
        Place
        <input
          className="plain-input"
          aria-label="Name of the place"
          key={place.name}
          defaultValue={place.name}
          maxLength={60}
          style={{ width: 150, textAlign: 'right' }}
          onBlur={(e) => rename(e.target.value.trim())}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </h2>
      <div className="row">
        <span>Kind</span>
        <Select
          aria-label="Kind of place"
          size="xs"
          w={140}
          allowDeselect={false}
          data={[...PLACE_KINDS]}
          value={place.kind}
          onChange={(kind) => kind && void editPlace(`a ${kind}`, (p) => ({ ...p, kind: kind as PlaceKind }))}
        />
      </div>
      <div className="row">
        <span>Air</span>
        <span style={{ display: 'flex', gap: 6 }}>
          <NumberField
            label="Temperature"
            value={place.temperatureC}
            unit="°C"
            min={-20}
            max={50}
            step={0.5}
            width={76}
            onChange={(temperatureC) => void editPlace(`${temperatureC} °C`, (p) => ({ ...p, temperatureC }))}
          />
          <NumberField
            label="Relative humidity"
            value={place.relativeHumidityPercent}
            unit="%"
            min={0}
            max={100}
            step={5}
            digits={0}
            width={64}
            onChange={(v) => void editPlace(`${v} % humidity`, (p) => ({ ...p, relativeHumidityPercent: v }))}
          />
        </span>
      </div>
      <div className="row">
        <Switch
          size="xs"
          label="Walls and ceiling"
          checked={place.shape.isEnclosed}
          onChange={(e) => {
            const isEnclosed = e.currentTarget.checked;
            void editPlace(isEnclosed ? 'walls and ceiling' : 'no walls', (p) => ({
              ...p,
              shape: { ...p.shape, isEnclosed },
            }));
          }}
        />
        <SegmentedControl
          size="xs"
          aria-label="Unit of length"
          data={[
            { value: 'm', label: 'metres' },
            { value: 'ft', label: 'feet' },
          ]}
          value={place.lengthUnit}
          onChange={(v) =>
            void editPlace(v === 'ft' ? 'lengths in feet' : 'lengths in metres', (p) => ({
              ...p,
              lengthUnit: v as 'm' | 'ft',
            }))
          }
        />
      </div>
    </section>
  );
}
