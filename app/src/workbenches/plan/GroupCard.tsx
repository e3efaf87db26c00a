import { Button, Checkbox, Select, TextInput } from '@mantine/core';
import { boxesOf, endFireStepMs, freeBoxesOf, type FreeBox, type Group } from '@pebble-hall/core/place';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useState } from 'react';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { setLoudspeaker } from './LoudspeakerCards';
import { PatternDialog } from '../../parts/pattern/PatternDialog';

const KINDS = [
  { value: 'one', label: 'one loudspeaker' },
  { value: 'line', label: 'line with splay' },
  { value: 'row', label: 'row' },
  { value: 'arc', label: 'arc' },
  { value: 'stack', label: 'stack' },
  { value: 'gradient', label: 'gradient pair' },
  { value: 'end-fire', label: 'end-fire' },
  { value: 'free', label: 'placed one by one' },
];

/** A group to begin with, of the kind that is asked for. */
function firstOf(kind: string, loudspeaker: Loudspeaker, c: number): Group | null {
  const wayMs = (metres: number) => Number(endFireStepMs(metres, c).toFixed(2));
  switch (kind) {
    case 'line':
      return { kind, spacingM: 0.35, splayDeg: [2, 3, 4] };
    case 'row':
      return { kind, count: 2, spacingM: 2 };
    case 'stack':
      return { kind, count: 2, spacingM: 0.6 };
    case 'arc':
      return { kind, count: 4, radiusM: 4, spanDeg: 60 };
    case 'gradient':
      return { kind, spacingM: 0.9, rearDelayMs: wayMs(0.9) };
    case 'end-fire':
      return { kind, count: 4, spacingM: 1.2, stepMs: wayMs(1.2) };
    case 'free':
      return { kind, boxes: freeBoxesOf(loudspeaker.group) };
    default:
      return null;
  }
}

/** Several boxes on the one output: how they hang or stand together. */
export function GroupCard({ project, loudspeaker: l }: { project: Project; loudspeaker: Loudspeaker }) {
  const { lengthUnit: unit, temperatureC } = project.place;
  const { group } = l;
  const [isLooking, setLooking] = useState(false);
  const set = (next: Group | null) => setLoudspeaker(l.id, `group of ${l.name}`, { group: next });
  const c = speedOfSound(temperatureC);
  const length = (label: string, value: number, change: (m: number) => Group) => (
    <div className="row">
      <span>{label}</span>
      <LengthField
        label={label}
        value={value}
        unit={unit}
        min={0}
        max={100}
        step={0.05}
        onChange={(m) => set(change(m))}
      />
    </div>
  );
  const number = (
    label: string,
    value: number,
    suffix: string,
    [min, max, step, digits]: [number, number, number, number],
    change: (v: number) => Group,
  ) => (
    <div className="row">
      <span>{label}</span>
      <NumberField
        label={label}
        value={value}
        unit={suffix}
        min={min}
        max={max}
        step={step}
        digits={digits}
        width={84}
        onChange={(v) => set(change(v))}
      />
    </div>
  );
  return (
    <section className="card" aria-label="Group" style={{ overflow: 'auto', gridColumn: 'span 2' }}>
      <h2>
        Group
        <Select
          aria-label="Kind of group"
          size="xs"
          w={160}
          allowDeselect={false}
          data={KINDS}
          value={group?.kind ?? 'one'}
          onChange={(kind) => kind && set(firstOf(kind, l, c))}
        />
      </h2>
      {group === null ? (
        <span className="quiet">
          One box. A group is several boxes of one model on this output: it has one centre and moves as one.
        </span>
      ) : (
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: '4px 20px' }}>
          {group.kind === 'line' ? (
            <>
              {length('From box to box', group.spacingM, (spacingM) => ({ ...group, spacingM }))}
              <SplayField splayDeg={group.splayDeg} onChange={(splayDeg) => set({ ...group, splayDeg })} />
            </>
          ) : null}
          {group.kind === 'row' || group.kind === 'stack' || group.kind === 'end-fire' ? (
            <>
              {number('Boxes', group.count, '', [1, 64, 1, 0], (v) => ({ ...group, count: Math.round(v) }))}
              {length('From box to box', group.spacingM, (spacingM) => ({ ...group, spacingM }))}
            </>
          ) : null}
          {group.kind === 'end-fire'
            ? number('Later by', group.stepMs, 'ms', [0, 100, 0.05, 2], (stepMs) => ({ ...group, stepMs }))
            : null}
          {group.kind === 'arc' ? (
            <>
              {number('Boxes', group.count, '', [1, 64, 1, 0], (v) => ({ ...group, count: Math.round(v) }))}
              {length('Radius', group.radiusM, (radiusM) => ({ ...group, radiusM }))}
              {number('Angle over all', group.spanDeg, '°', [0, 360, 5, 0], (spanDeg) => ({
                ...group,
                spanDeg,
              }))}
            </>
          ) : null}
          {group.kind === 'gradient' ? (
            <>
              {length('Front to rear', group.spacingM, (spacingM) => ({ ...group, spacingM }))}
              {number('Rear later by', group.rearDelayMs, 'ms', [0, 100, 0.05, 2], (rearDelayMs) => ({
                ...group,
                rearDelayMs,
              }))}
            </>
          ) : null}
          {group.kind === 'free' ? (
            <FreeBoxes boxes={group.boxes} unit={unit} onChange={(boxes) => set({ kind: 'free', boxes })} />
          ) : (
            <div>
              <Button
                size="compact-sm"
                variant="default"
                onClick={() => set({ kind: 'free', boxes: freeBoxesOf(group) })}
              >
                Open the group
              </Button>
            </div>
          )}
        </div>
      )}
      {group ? (
        <div className="row">
          <small className="quiet">
            {boxesOf(l).length} boxes on output {l.output}
            {group.kind === 'gradient' ? ', the rear one inverted' : ''}.
          </small>
          <Button size="compact-xs" variant="default" onClick={() => setLooking(true)}>
            Its pattern
          </Button>
        </div>
      ) : null}
      {isLooking && group ? (
        <PatternDialog project={project} loudspeaker={l} onGroup={set} onClose={() => setLooking(false)} />
      ) : null}
    </section>
  );
}

/** Boxes that were placed one by one, from the centre of their group. */
function FreeBoxes({
  boxes,
  unit,
  onChange,
}: {
  boxes: FreeBox[];
  unit: 'm' | 'ft';
  onChange: (boxes: FreeBox[]) => void;
}) {
  const set = (nth: number, next: Partial<FreeBox>) =>
    onChange(boxes.map((b, i) => (i === nth ? { ...b, ...next } : b)));
  return (
    <table
      className="plain tight compact-fields"
      aria-label="Boxes of the group"
      style={{ gridColumn: 'span 2' }}
    >
      <thead>
        <tr>
          {['Box', 'ahead', 'to the left', 'up', 'turned', 'tilted', 'later', 'inverted'].map((h) => (
            <th key={h}>{h}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {boxes.map((box, i) => (
          <tr key={i}>
            <td className="mono">{i + 1}</td>
            {(['ahead', 'left', 'up'] as const).map((key) => (
              <td key={key}>
                <LengthField
                  label={`Box ${i + 1}, ${key}`}
                  value={box[key]}
                  unit={unit}
                  width={64}
                  step={0.05}
                  onChange={(v) => set(i, { [key]: v })}
                />
              </td>
            ))}
            {(['yawDeg', 'pitchDeg'] as const).map((key) => (
              <td key={key}>
                <NumberField
                  label={`Box ${i + 1}, ${key === 'yawDeg' ? 'turned' : 'tilted'}`}
                  value={box[key]}
                  unit="°"
                  min={-360}
                  max={360}
                  step={1}
                  width={56}
                  onChange={(v) => set(i, { [key]: v })}
                />
              </td>
            ))}
            <td>
              <NumberField
                label={`Box ${i + 1}, later`}
                value={box.delayMs}
                unit="ms"
                min={0}
                max={1000}
                step={0.05}
                digits={2}
                width={72}
                onChange={(delayMs) => set(i, { delayMs })}
              />
            </td>
            <td>
              <Checkbox
                size="xs"
                aria-label={`Box ${i + 1}, inverted`}
                checked={box.inverted}
                onChange={(e) => set(i, { inverted: e.currentTarget.checked })}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Angles between neighbours, from the top down, as one list of numbers. */
function SplayField({ splayDeg, onChange }: { splayDeg: number[]; onChange: (splayDeg: number[]) => void }) {
  const text = splayDeg.join(' ');
  return (
    <div className="row">
      <span>Splay, top down</span>
      <TextInput
        aria-label="Splay angles in degrees, from the top down"
        size="xs"
        w={150}
        key={text}
        defaultValue={text}
        classNames={{ input: 'mono' }}
        onBlur={(e) => {
          const list = e.target.value
            .trim()
            .split(/[\s,;]+/)
            .filter(Boolean)
            .map(Number);
          const good = list.length <= 63 && list.every((v) => Number.isFinite(v) && Math.abs(v) <= 90);
          if (good && list.join(' ') !== text) onChange(list);
          else e.target.value = text;
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </div>
  );
}
