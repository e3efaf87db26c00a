import { Button, Popover, Select, Textarea, TextInput } from '@mantine/core';
import { type Project, type Round, roundOf } from '@pebble-hall/core/project';
import { useState } from 'react';
import type { Change } from '../../services/changeProject';
import { withNewRound, withoutRound } from './rounds';

/** The round under way: its name and note, the others, and a new one. */
export function RoundButton({
  project,
  change,
  disabled,
}: {
  project: Project;
  change: Change;
  disabled: boolean;
}) {
  const [open, setOpen] = useState(false);
  const round = roundOf(project);
  const count = project.sweeps.filter((s) => s.roundId === round.id && s.stage === 'as found').length;
  const set = (label: string, next: Partial<Round>) =>
    void change(label, (p) => ({
      ...p,
      rounds: p.rounds.map((r) => (r.id === round.id ? { ...r, ...next } : r)),
    }));
  return (
    <Popover opened={open} onChange={setOpen} width={320} position="bottom-end" shadow="sm" trapFocus>
      <Popover.Target>
        <Button size="compact-xs" variant="default" onClick={() => setOpen((was) => !was)}>
          {round.name}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div style={{ display: 'grid', gap: 10, fontSize: 13 }}>
          {project.rounds.length > 1 ? (
            <Select
              label="Round under way"
              size="xs"
              allowDeselect={false}
              disabled={disabled}
              comboboxProps={{ withinPortal: false }}
              data={project.rounds.map((r) => ({ value: r.id, label: r.name }))}
              value={round.id}
              onChange={(id) => {
                const next = project.rounds.find((r) => r.id === id);
                if (next) void change(`on with ${next.name}`, (p) => ({ ...p, roundId: next.id }));
              }}
            />
          ) : null}
          <TextInput
            label="Name of the round"
            size="xs"
            key={`${round.id} ${round.name}`}
            defaultValue={round.name}
            maxLength={60}
            onBlur={(e) => {
              const name = e.target.value.trim();
              if (name && name !== round.name) set(`${round.name} is ${name} now`, { name });
            }}
          />
          <Textarea
            label="Note"
            size="xs"
            key={`${round.id} note ${round.note}`}
            defaultValue={round.note}
            placeholder="Drapes up, empty hall, doors shut …"
            maxLength={1000}
            autosize
            minRows={2}
            onBlur={(e) =>
              e.target.value !== round.note && set(`note on ${round.name}`, { note: e.target.value })
            }
          />
          <span className="quiet">
            {round.startedAt > 0 ? `Begun ${new Date(round.startedAt).toLocaleString()}, ` : ''}
            {count === 1 ? '1 sweep' : `${count} sweeps`}. Correct uses the round under way; the others are
            kept, and Traces compares them.
          </span>
          <div style={{ display: 'flex', gap: 8 }}>
            <Button
              size="compact-sm"
              disabled={disabled || count === 0}
              onClick={() => {
                setOpen(false);
                void change('a new round', (p) => withNewRound(p, crypto.randomUUID(), Date.now()));
              }}
            >
              Begin a new round
            </Button>
            {project.rounds.length > 1 ? (
              <Button
                size="compact-sm"
                variant="default"
                disabled={disabled}
                onClick={() => {
                  setOpen(false);
                  void change(`deleting ${round.name}`, (p) => withoutRound(p, round.id));
                }}
              >
                Delete this one
              </Button>
            ) : null}
          </div>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
