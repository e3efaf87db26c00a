import { Button, Popover, Select, VisuallyHidden } from '@mantine/core';
import {
  familiesOf,
  withMember,
  type Family,
  type Loudspeaker,
  type Project,
  loudspeakerById,
} from '@pebble-hall/core/project';
import { useState } from 'react';
import type { Change } from '../services/changeProject';

const NEW = 'a family of its own';

/** Families as chips that select all their members, and a card to rearrange them by dragging or by keyboard. */
export function FamilyChips({
  project,
  shown,
  selected,
  onSelect,
  change,
}: {
  project: Project;
  /** loudspeakers that can be selected */
  shown: Loudspeaker[];
  selected: string[];
  onSelect: (ids: string[]) => void;
  change: Change;
}) {
  const families = familiesOf(project).map((f) => ({
    ...f,
    members: shown.filter((l) => f.loudspeakerIds.includes(l.id)),
  }));
  return (
    <>
      {families
        .filter((f) => f.members.length > 1)
        .map((f) => (
          <button
            key={f.id}
            className="chip"
            aria-pressed={
              f.members.length === selected.length && f.members.every((l) => selected.includes(l.id))
            }
            onClick={() => onSelect(f.members.map((l) => l.id))}
          >
            <VisuallyHidden>Family </VisuallyHidden>
            {f.name} <small>{f.members.length}</small>
          </button>
        ))}
      <Rearrange project={project} change={change} />
    </>
  );
}

function Rearrange({ project, change }: { project: Project; change: Change }) {
  const [held, setHeld] = useState<string | null>(null);
  const families = familiesOf(project);
  const { loudspeakers } = project.place;
  const move = (id: string, familyId: string | null) => {
    const loudspeaker = loudspeakerById({ loudspeakers }, id)!;
    void change(`family of ${loudspeaker.name}`, (p) => ({
      ...p,
      families: withMember(familiesOf(p), loudspeaker, familyId, crypto.randomUUID()),
    }));
  };
  const rename = (family: Family, name: string) =>
    void change(`family ${name}`, (p) => ({
      ...p,
      families: familiesOf(p).map((f) => (f.id === family.id ? { ...f, name } : f)),
    }));
  return (
    <Popover position="bottom-start" width={380} shadow="sm" withArrow>
      <Popover.Target>
        <Button size="compact-xs" variant="default">
          Families
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <section aria-label="Families" style={{ display: 'grid', gap: 10, fontSize: 13 }}>
          <span className="quiet">
            Loudspeakers that are looked at and corrected alike. Drag one to another family, or choose it.
          </span>
          {families.map((f) => (
            <div
              key={f.id}
              role="group"
              aria-label={f.name}
              onDragOver={(e) => e.preventDefault()}
              onDrop={(e) => {
                e.preventDefault();
                const id = held ?? e.dataTransfer.getData('text/plain');
                setHeld(null);
                if (loudspeakers.some((l) => l.id === id) && !f.loudspeakerIds.includes(id)) move(id, f.id);
              }}
              style={{
                border: '1.5px dashed var(--line)',
                borderRadius: 10,
                padding: '6px 10px',
                display: 'grid',
                gap: 4,
              }}
            >
              <input
                className="plain-input"
                aria-label={`Name of the family ${f.name}`}
                key={f.name}
                defaultValue={f.name}
                maxLength={60}
                style={{ fontWeight: 700 }}
                onBlur={(e) => {
                  const name = e.target.value.trim();
                  if (name && name !== f.name) rename(f, name);
                  else e.target.value = f.name;
                }}
                onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
              />
              {f.loudspeakerIds.map((id) => {
                const l = loudspeakerById({ loudspeakers }, id)!;
                return (
                  <div
                    key={id}
                    className="row"
                    draggable
                    onDragStart={(e) => {
                      e.dataTransfer.setData('text/plain', id);
                      setHeld(id);
                    }}
                    style={{ cursor: 'grab', opacity: held === id ? 0.5 : 1 }}
                  >
                    <span>
                      {l.name} <small className="quiet">{l.model}</small>
                    </span>
                    <Select
                      aria-label={`Family of ${l.name}`}
                      size="xs"
                      w={170}
                      allowDeselect={false}
                      comboboxProps={{ withinPortal: false }}
                      data={[
                        ...families.map((o) => ({ value: o.id, label: o.name })),
                        ...(f.loudspeakerIds.length > 1 ? [{ value: NEW, label: NEW }] : []),
                      ]}
                      value={f.id}
                      onChange={(to) => to && to !== f.id && move(id, to === NEW ? null : to)}
                    />
                  </div>
                );
              })}
            </div>
          ))}
          {project.families ? (
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => void change('families as proposed', (p) => ({ ...p, families: null }))}
            >
              As proposed, by model
            </Button>
          ) : null}
        </section>
      </Popover.Dropdown>
    </Popover>
  );
}
