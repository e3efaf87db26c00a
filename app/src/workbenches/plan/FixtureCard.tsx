import { Select } from '@mantine/core';
import { FIXTURE_KINDS, type Fixture, type Project } from '@pebble-hall/core/project';
import { LengthField } from '../../parts/LengthField';
import { NameField } from './NameField';
import { editPlace } from './usePlan';

/** A surface or a piece of furniture by its numbers. */
export function FixtureCard({ project, fixture }: { project: Project; fixture: Fixture }) {
  const { lengthUnit: unit } = project.place;
  const set = (label: string, next: Partial<Fixture>) =>
    void editPlace(label, (p) => ({
      ...p,
      fixtures: p.fixtures.map((f) => (f.id === fixture.id ? { ...f, ...next } : f)),
    }));
  const field = (label: string, key: 'x' | 'y' | 'width' | 'depth' | 'bottom' | 'top', least?: number) => (
    <div className="row">
      <span>{label}</span>
      <LengthField
        label={label}
        value={fixture[key]}
        unit={unit}
        {...(least === undefined ? {} : { min: least })}
        step={0.05}
        onChange={(v) => set(`${fixture.name}: ${label.toLowerCase()}`, { [key]: v })}
      />
    </div>
  );
  return (
    <section className="card" aria-label="Surface" style={{ gridColumn: 'span 2' }}>
      <h2>
        <NameField
          label="Name of the surface"
          value={fixture.name}
          onChange={(name) => set(`${fixture.name} is ${name} now`, { name })}
        />
        <Select
          aria-label="What it is"
          size="xs"
          w={120}
          allowDeselect={false}
          data={[...FIXTURE_KINDS]}
          value={fixture.kind}
          onChange={(kind) => kind && set(`a ${kind}`, { kind: kind as Fixture['kind'] })}
        />
      </h2>
      <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: '5px 24px' }}>
        {field('From the front', 'x')}
        {field('From the left', 'y')}
        {field('Along the place', 'width', 0)}
        {field('Across it', 'depth', 0)}
        {field('Lower side', 'bottom')}
        {field('Upper side', 'top')}
      </div>
      <small className="quiet">Drawn and named; the simulated rig does not hear it yet.</small>
    </section>
  );
}
