import { SegmentedControl, Select, Switch } from '@mantine/core';
import type { Place, Project } from '@pebble-hall/core/project';
import { variantOf } from '@pebble-hall/core/project';
import { LengthField } from '../../../parts/LengthField';
import { NumberField } from '../../../parts/NumberField';
import type { MapSettings } from './mapSettings';
import type { LevelMap } from './useLevelMap';

/** On which surface levels are looked at, and what is in them. */
export function SurfaceCard({ map, project }: { map: LevelMap; project: Project }) {
  const { settings: s, set } = map;
  const { place } = project;
  const hasAudience = place.audience.length > 0;
  const surface = s.surface === 'audience' && !hasAudience ? 'floor' : s.surface;
  return (
    <section className="card" aria-label="Surface and air">
      <h2>Surface and air</h2>
      <SegmentedControl
        aria-label="Surface"
        size="xs"
        fullWidth
        data={[
          { value: 'audience', label: 'audience', disabled: !hasAudience },
          { value: 'floor', label: 'over the floor' },
          { value: 'upright', label: 'upright' },
        ]}
        value={surface}
        onChange={(v) => set({ surface: v as MapSettings['surface'] })}
      />
      {surface === 'floor' ? (
        <div className="row compact-fields">
          <LengthField
            label="Height over the floor"
            value={s.heightM}
            unit={place.lengthUnit}
            min={0}
            max={50}
            onChange={(heightM) => set({ heightM })}
          />
          <span>rising by</span>
          <NumberField
            label="Rise for each metre from the front"
            value={100 * s.rise}
            unit="%"
            min={-100}
            max={100}
            step={1}
            width={70}
            onChange={(v) => set({ rise: v / 100 })}
          />
        </div>
      ) : surface === 'upright' ? (
        <UprightFields map={map} place={place} />
      ) : null}
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
      <Switch
        size="xs"
        label={filterWords(map)}
        disabled={map.fitted.state === 'none measured'}
        checked={s.withFilters && map.fitted.state !== 'none measured'}
        onChange={(e) => set({ withFilters: e.currentTarget.checked })}
      />
      <small className="quiet">
        Trims, delays, polarity, crossovers of {variantOf(project).name} are in it.
      </small>
    </section>
  );
}

function filterWords({ fitted, settings }: LevelMap): string {
  switch (fitted.state) {
    case 'none measured':
      return 'Filters: nothing is measured yet';
    case 'being made':
      return settings.withFilters ? 'Filters are being made: not in it yet' : 'With its filters';
    case 'failed':
      return 'Its filters cannot be made: see Correct';
    case 'there':
      return 'With its filters';
  }
}

/** Through what an upright plane goes, and in which direction. */
function UprightFields({ map: { settings: s, set }, place }: { map: LevelMap; place: Place }) {
  const through = (id: string | null) => {
    if (!id) return;
    const aimed = place.loudspeakers.find((l) => l.id === id);
    set({ through: id, ...(aimed ? { bearingDeg: aimed.aimDeg } : {}) });
  };
  return (
    <div className="row compact-fields">
      <Select
        aria-label="Through"
        size="xs"
        style={{ flex: 1 }}
        allowDeselect={false}
        data={[
          { value: 'home', label: 'home spot' },
          { value: 'pinned', label: 'pinned place', disabled: s.pinned === null },
          ...place.loudspeakers.map((l) => ({ value: l.id, label: l.name })),
        ]}
        value={s.through}
        onChange={through}
      />
      <NumberField
        label="Direction of the plane"
        value={s.bearingDeg}
        unit="°"
        min={-360}
        max={360}
        step={5}
        digits={0}
        width={74}
        onChange={(bearingDeg) => set({ bearingDeg })}
      />
    </div>
  );
}
