import { Button, Checkbox, SegmentedControl } from '@mantine/core';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { lengthText, WALLS } from '../../drawing';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { withCorner, withCornerAfter, withoutCorner } from './corners';
import { setLoudspeaker } from './LoudspeakerCards';
import { NameField } from './NameField';
import { editPlace } from './usePlan';

interface PlanTableProps {
  project: Project;
  selected: ReadonlySet<string>;
  onSelected: (ids: ReadonlySet<string>) => void;
}

/** All channels, or all corners of the walls, by their numbers. */
export function PlanTable({ project, selected, onSelected }: PlanTableProps) {
  const [of, setOf] = useState<'channels' | 'walls'>('channels');
  return (
    <section className="card" aria-label="Table" style={{ overflow: 'auto' }}>
      <h2>
        <SegmentedControl
          size="xs"
          aria-label="Table of"
          data={[
            { value: 'channels', label: 'Channels' },
            { value: 'walls', label: 'Walls' },
          ]}
          value={of}
          onChange={(v) => setOf(v as 'channels')}
        />
        <small>
          {of === 'channels'
            ? `${project.place.loudspeakers.length} of at most 64`
            : 'each wall runs from its corner to the next'}
        </small>
      </h2>
      {of === 'channels' ? (
        <ChannelRows project={project} selected={selected} onSelected={onSelected} />
      ) : (
        <WallRows project={project} />
      )}
    </section>
  );
}

function ChannelRows({ project, selected, onSelected }: PlanTableProps) {
  const { loudspeakers, lengthUnit: unit } = project.place;
  const set = (l: Loudspeaker, label: string, next: Partial<Loudspeaker>) =>
    setLoudspeaker(l.id, label, next);
  if (loudspeakers.length === 0)
    return <span className="quiet">No channels yet. Add a loudspeaker, or choose a layout.</span>;
  return (
    <table className="plain tight compact-fields" aria-label="Channels">
      <thead>
        <tr>
          {[
            'fitted',
            'Name',
            'Abbr.',
            'Fed by',
            'Output',
            'Model',
            'from front',
            'from left',
            'height',
            'direction',
            'tilt',
          ].map((h) => (
            <th key={h}>{h}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {loudspeakers.map((l) => (
          <tr
            key={l.id}
            style={{ background: selected.has(l.id) ? 'var(--kelp-soft)' : undefined }}
            onFocus={() => !selected.has(l.id) && onSelected(new Set([l.id]))}
          >
            <td>
              <Checkbox
                size="xs"
                aria-label={`${l.name} fitted`}
                checked={l.fitted}
                onChange={(e) =>
                  set(l, e.currentTarget.checked ? `${l.name} fitted` : `${l.name} not fitted`, {
                    fitted: e.currentTarget.checked,
                  })
                }
              />
            </td>
            <td>
              <NameField
                label={`Name of ${l.name}`}
                value={l.name}
                width={118}
                onChange={(name) => set(l, `${l.name} is ${name} now`, { name })}
              />
            </td>
            <td>
              <NameField
                label={`Abbreviation of ${l.name}`}
                value={l.abbreviation}
                width={54}
                most={12}
                onChange={(abbreviation) => set(l, `abbreviation ${abbreviation}`, { abbreviation })}
              />
            </td>
            <td>
              <NameField
                label={`What feeds ${l.name}`}
                value={l.feed}
                width={112}
                mayBeEmpty
                onChange={(feed) => set(l, `what feeds ${l.name}`, { feed })}
              />
            </td>
            <td>
              <NumberField
                label={`Output of ${l.name}`}
                value={l.output}
                unit=""
                min={1}
                max={64}
                step={1}
                digits={0}
                width={40}
                onChange={(output) => set(l, `${l.name} on output ${output}`, { output: Math.round(output) })}
              />
            </td>
            <td>
              <NameField
                label={`Model of ${l.name}`}
                value={l.model}
                width={84}
                onChange={(model) => set(l, `${l.name} is a ${model}`, { model })}
              />
            </td>
            {(['x', 'y', 'z'] as const).map((axis) => (
              <td key={axis}>
                <LengthField
                  label={`${{ x: 'From front', y: 'From left', z: 'Height' }[axis]} of ${l.name}`}
                  value={l.position[axis]}
                  unit={unit}
                  width={62}
                  step={0.05}
                  disabled={l.locked}
                  onChange={(v) =>
                    set(l, `position of ${l.name}`, { position: { ...l.position, [axis]: v } })
                  }
                />
              </td>
            ))}
            {(['aimDeg', 'pitchDeg'] as const).map((key) => (
              <td key={key}>
                <NumberField
                  label={`${key === 'aimDeg' ? 'Direction' : 'Tilt'} of ${l.name}`}
                  value={l[key]}
                  unit="°"
                  min={-360}
                  max={360}
                  step={1}
                  width={58}
                  disabled={l.locked}
                  onChange={(v) => set(l, `direction of ${l.name}`, { [key]: v })}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function WallRows({ project }: { project: Project }) {
  const { shape, lengthUnit: unit } = project.place;
  const { outline, walls } = shape;
  return (
    <table className="plain tight compact-fields" aria-label="Walls" style={{ width: 'auto' }}>
      <thead>
        <tr>
          {['Corner', 'from front', 'from left', 'Wall to the next', 'long', 'Add', 'Remove'].map((h, i) => (
            <th key={i}>{h}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {outline.map((c, i) => {
          const next = outline[(i + 1) % outline.length]!;
          const move = (to: Partial<typeof c>) =>
            void editPlace(`corner ${i + 1}`, (p) => withCorner(p, `${WALLS} ${i}`, { ...c, ...to }));
          return (
            <tr key={i}>
              <td className="mono">{i + 1}</td>
              {(['x', 'y'] as const).map((axis) => (
                <td key={axis}>
                  <LengthField
                    label={`Corner ${i + 1}, ${axis === 'x' ? 'from front' : 'from left'}`}
                    value={c[axis]}
                    unit={unit}
                    width={80}
                    onChange={(v) => move({ [axis]: v })}
                  />
                </td>
              ))}
              <td>
                <NameField
                  label={`Name of wall ${i + 1}`}
                  value={walls[i]!.name}
                  onChange={(name) =>
                    void editPlace(`wall ${name}`, (p) => ({
                      ...p,
                      shape: {
                        ...p.shape,
                        walls: p.shape.walls.map((w, k) => (k === i ? { ...w, name } : w)),
                      },
                    }))
                  }
                />
              </td>
              <td className="mono num">{lengthText(Math.hypot(next.x - c.x, next.y - c.y), unit)}</td>
              <td>
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() => void editPlace('a new corner', (p) => withCornerAfter(p, `${WALLS} ${i}`))}
                >
                  Corner in it
                </Button>
              </td>
              <td>
                <Button
                  size="compact-xs"
                  variant="default"
                  aria-label={`Remove corner ${i + 1}`}
                  disabled={outline.length <= 3}
                  onClick={() => void editPlace('a corner less', (p) => withoutCorner(p, `${WALLS} ${i}`))}
                >
                  Remove
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
