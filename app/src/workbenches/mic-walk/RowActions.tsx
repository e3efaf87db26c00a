import { Button, Popover, Textarea } from '@mantine/core';
import type { Spot, Sweep } from '@pebble-hall/core/project';
import { useState } from 'react';
import type { Change } from '../../services/changeProject';
import { hearSweeps } from './hearSweeps';

interface RowActionsProps {
  spot: Spot;
  sweeps: Sweep[];
  isNow: boolean;
  busy: boolean;
  change: Change;
  onRepeat: (sweeps: Sweep[]) => void;
}

/** A spot's name in the matrix, and what can be done with all its sweeps at once. */
export function RowActions({ spot, sweeps, isNow, busy, change, onRepeat }: RowActionsProps) {
  const [open, setOpen] = useState(false);
  const ids = new Set(sweeps.map((s) => s.id));
  const set = (label: string, next: Partial<Pick<Sweep, 'inAverage' | 'note'>>) =>
    void change(label, (p) => ({
      ...p,
      sweeps: p.sweeps.map((s) => (ids.has(s.id) ? { ...s, ...next } : s)),
    }));
  const used = sweeps.some((s) => s.inAverage);
  const notes = [...new Set(sweeps.map((s) => s.note).filter(Boolean))];
  const button = (
    <button
      className="linkish"
      aria-label={`All sweeps at ${spot.name}`}
      disabled={sweeps.length === 0}
      onClick={() => setOpen((was) => !was)}
      style={{
        fontWeight: isNow ? 700 : 400,
        color: 'var(--soft)',
        textDecoration: 'none',
        whiteSpace: 'nowrap',
      }}
    >
      {spot.name}
    </button>
  );
  if (!open) return button;
  return (
    <Popover opened onChange={setOpen} width={320} position="bottom-start" withArrow shadow="sm" trapFocus>
      <Popover.Target>{button}</Popover.Target>
      <Popover.Dropdown>
        <div style={{ display: 'grid', gap: 8, fontSize: 13 }}>
          <b>
            {sweeps.length} {sweeps.length === 1 ? 'sweep' : 'sweeps'} at {spot.name}
          </b>
          <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
            <Button
              size="compact-sm"
              disabled={busy}
              onClick={() => {
                setOpen(false);
                onRepeat(sweeps);
              }}
            >
              Repeat the row
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              disabled={busy}
              onClick={() => void hearSweeps(sweeps)}
            >
              Hear them
            </Button>
            <Button size="compact-sm" variant="default" component="a" href={`/traces?spot=${spot.id}#time`}>
              Look at them
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => set(`${spot.name} ${used ? 'left out' : 'used'}`, { inAverage: !used })}
            >
              {used ? 'Leave the row out' : 'Use the row'}
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              disabled={busy}
              onClick={() => {
                setOpen(false);
                void change(`deleting the sweeps at ${spot.name}`, (p) => ({
                  ...p,
                  sweeps: p.sweeps.filter((s) => !ids.has(s.id)),
                }));
              }}
            >
              Delete the row
            </Button>
          </div>
          <Textarea
            aria-label={`Note on all sweeps at ${spot.name}`}
            placeholder={notes.length > 1 ? 'several notes; a new one replaces them' : 'Note'}
            size="xs"
            autosize
            maxLength={1000}
            defaultValue={notes.length === 1 ? notes[0] : ''}
            onBlur={(e) => {
              const note = e.target.value;
              if (note !== (notes.length === 1 ? notes[0] : '')) set(`note on ${spot.name}`, { note });
            }}
          />
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
