import { ActionIcon, Select, Switch } from '@mantine/core';
import { IconBroadcast } from '../../icons';
import { useState } from 'react';
import { MOUNTS, type Loudspeaker, type Mount, type Project } from '@pebble-hall/core/project';
import { NumberField } from '../../parts/NumberField';
import { modelNames } from './models/ownModels';
import { OwnModelDialog } from './models/OwnModelDialog';
import { RadiationDialog } from './models/RadiationDialog';
import { NameField } from './NameField';
import { PositionFields } from './PositionFields';
import { editPlace } from './usePlan';

interface Props {
  project: Project;
  loudspeaker: Loudspeaker;
}

/** Changes one loudspeaker of the place. */
export const setLoudspeaker = (id: string, label: string, next: Partial<Loudspeaker>) =>
  void editPlace(label, (p) => ({
    ...p,
    loudspeakers: p.loudspeakers.map((l) => (l.id === id ? { ...l, ...next } : l)),
  }));

/** The channel: its name, what feeds it, its output. */
export function ChannelCard({ loudspeaker: l }: Props) {
  const set = (label: string, next: Partial<Loudspeaker>) => setLoudspeaker(l.id, label, next);
  return (
    <section className="card" aria-label="Channel">
      <h2>
        <NameField
          label="Name of the channel"
          value={l.name}
          onChange={(name) => set(`${l.name} is ${name} now`, { name })}
        />
        <Switch
          size="xs"
          label="fitted"
          checked={l.fitted}
          onChange={(e) =>
            set(e.currentTarget.checked ? `${l.name} fitted` : `${l.name} not fitted`, {
              fitted: e.currentTarget.checked,
            })
          }
        />
      </h2>
      <div className="row">
        <span>Abbreviation</span>
        <NameField
          label="Abbreviation"
          value={l.abbreviation}
          width={80}
          most={12}
          onChange={(abbreviation) => set(`abbreviation ${abbreviation}`, { abbreviation })}
        />
      </div>
      <div className="row">
        <span>Fed by</span>
        <NameField
          label="What feeds it"
          value={l.feed}
          width={160}
          mayBeEmpty
          onChange={(feed) => set(`${l.name} fed by ${feed || 'nothing said'}`, { feed })}
        />
      </div>
      <div className="row">
        <span>Output</span>
        <NumberField
          label="Output"
          value={l.output}
          unit=""
          min={1}
          max={64}
          step={1}
          digits={0}
          width={64}
          onChange={(output) => set(`${l.name} on output ${output}`, { output: Math.round(output) })}
        />
      </div>
    </section>
  );
}

/** What is no model's name, for none may be empty. */
const OWN = '';

/** The loudspeaker: its model, where it is, where it points, how it is held. */
export function LoudspeakerCard({ project, loudspeaker: l }: Props) {
  const set = (label: string, next: Partial<Loudspeaker>) => setLoudspeaker(l.id, label, next);
  const [opened, setOpened] = useState<'radiation' | 'own model' | null>(null);
  const angle = (label: string, key: 'aimDeg' | 'pitchDeg' | 'rollDeg', word: string) => (
    <label style={{ display: 'grid', gap: 2, fontSize: 12 }}>
      {word}
      <NumberField
        label={label}
        value={l[key]}
        unit="°"
        min={-360}
        max={360}
        step={1}
        width={78}
        disabled={l.locked}
        onChange={(v) => set(`${l.name}: ${word} ${v}°`, { [key]: v })}
      />
    </label>
  );
  return (
    <section className="card" aria-label="Loudspeaker">
      <h2>
        Loudspeaker
        <ActionIcon
          variant="default"
          aria-label="How it radiates"
          title="How it radiates"
          style={{ marginLeft: 'auto' }}
          onClick={() => setOpened('radiation')}
        >
          <IconBroadcast size={15} />
        </ActionIcon>
        <Select
          aria-label="Model"
          size="xs"
          w={132}
          searchable
          allowDeselect={false}
          data={[...modelNames(project.place, l), { value: OWN, label: 'One of your own …' }]}
          value={l.model}
          onChange={(model) => {
            if (model === OWN) setOpened('own model');
            else if (model) set(`${l.name} is a ${model}`, { model });
          }}
        />
      </h2>
      <PositionFields
        at={l.position}
        unit={project.place.lengthUnit}
        disabled={l.locked}
        onChange={(position) => set(`position of ${l.name}`, { position })}
      />
      <div className="row compact-fields" style={{ gap: 6 }}>
        {angle('Direction', 'aimDeg', 'direction')}
        {angle('Tilt', 'pitchDeg', 'tilt')}
        {angle('Roll', 'rollDeg', 'roll')}
      </div>
      <div className="row" style={{ gap: 6 }}>
        <Select
          aria-label="Role"
          size="xs"
          w={120}
          allowDeselect={false}
          data={['full range', 'subwoofer']}
          value={l.role}
          onChange={(role) => role && set(`${l.name}: ${role}`, { role: role as Loudspeaker['role'] })}
        />
        <Select
          aria-label="How it is held"
          size="xs"
          w={120}
          allowDeselect={false}
          data={[...MOUNTS]}
          value={l.mount}
          onChange={(mount) => mount && set(`${l.name} ${mount}`, { mount: mount as Mount })}
        />
      </div>
      {opened === 'radiation' ? (
        <RadiationDialog place={project.place} loudspeaker={l} onClose={() => setOpened(null)} />
      ) : opened === 'own model' ? (
        <OwnModelDialog project={project} loudspeaker={l} onClose={() => setOpened(null)} />
      ) : null}
    </section>
  );
}
