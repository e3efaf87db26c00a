import { ActionIcon, Button } from '@mantine/core';
import type { TargetHandle } from '@pebble-hall/core/correct';
import type { Correction } from '@pebble-hall/core/project';
import { IconTrash } from '@tabler/icons-react';
import { NumberField } from '../../parts/NumberField';

interface TargetCardProps {
  correction: Correction;
  selected: number | null;
  onSelect: (index: number) => void;
  onEdit: (label: string, handles: TargetHandle[]) => void;
  onPlaceAgain: () => void;
}

/** The handles of the target as numbers; the same ones that drag in the plot. */
export function TargetCard({ correction, selected, onSelect, onEdit, onPlaceAgain }: TargetCardProps) {
  const { handles, targetLevels } = correction;
  const index = selected !== null && selected < handles.length ? selected : 0;
  const handle = handles[index]!;
  const set = (next: Partial<TargetHandle>) =>
    onEdit(
      'target handle moved',
      handles.map((h, i) => (i === index ? { ...h, ...next } : h)),
    );
  const doubled = (frequency: number) =>
    handles.some((h, i) => i !== index && Math.abs(h.frequency / frequency - 1) < 0.01);
  return (
    <section className="card" aria-label="Target">
      <h2>
        Target <small>drag a handle, double-click to add one</small>
      </h2>
      <div style={{ display: 'flex', gap: 5, flexWrap: 'wrap' }} role="group" aria-label="Handles">
        {handles.map((h, i) => (
          <button
            key={i}
            className="chip"
            style={{ padding: '1px 9px', fontSize: 12.5 }}
            aria-pressed={i === index}
            onClick={() => onSelect(i)}
          >
            {h.frequency >= 1000
              ? `${Number((h.frequency / 1000).toPrecision(3))}k`
              : Number(h.frequency.toPrecision(3))}
          </button>
        ))}
      </div>
      <div className="row" style={{ justifyContent: 'flex-start', gap: 8 }}>
        <NumberField
          label="Handle frequency"
          value={handle.frequency}
          unit="Hz"
          min={20}
          max={20000}
          step={10}
          digits={0}
          width={92}
          onChange={(frequency) => !doubled(frequency) && set({ frequency })}
        />
        <NumberField
          label="Handle level"
          value={handle.levelDb}
          unit="dB"
          min={-24}
          max={24}
          step={0.5}
          width={84}
          onChange={(levelDb) => set({ levelDb })}
        />
        <ActionIcon
          variant="default"
          aria-label="Remove this handle"
          disabled={handles.length < 2}
          onClick={() =>
            onEdit(
              'target handle removed',
              handles.filter((_, i) => i !== index),
            )
          }
        >
          <IconTrash size={15} />
        </ActionIcon>
        <Button
          size="compact-xs"
          style={{ flexShrink: 0 }}
          variant="default"
          disabled={Object.keys(targetLevels).length === 0}
          onClick={onPlaceAgain}
          title="Let the target find its level by itself again"
        >
          Place again
        </Button>
      </div>
    </section>
  );
}
