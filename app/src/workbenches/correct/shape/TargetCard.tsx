import { ActionIcon, Button, SegmentedControl } from '@mantine/core';
import type { ExtensionPrice, RollOffs, Target, TargetHandle } from '@pebble-hall/core/correct';
import { IconChevronLeft, IconChevronRight, IconPlus, IconRestore, IconTrash } from '../../../icons';
import { useCallback, useEffect, useRef, type ReactNode } from 'react';
import { NumberField } from '../../../parts/NumberField';
import type { EditTarget } from '../correctionVerbs';
import { TargetEnds } from './TargetEnds';
import { handleInWidestGap } from './targetHandles';
import { TargetPresets } from './TargetPresets';

interface TargetCardProps {
  target: Target;
  /** the family that the channel belongs to, and whether it has a target of its own */
  family: { name: string; own: boolean } | null;
  rollOffs: RollOffs | null;
  /** what extending its ends takes; null while they are kept */
  extension: ExtensionPrice | null;
  selected: number | null;
  placed: boolean;
  onSelect: (index: number) => void;
  onEdit: EditTarget;
  onOwn: (own: boolean) => void;
  onShift: (byDb: number) => void;
  onPlaceAgain: () => void;
}

const MOST_HANDLES = 24;

/** The target as numbers: its handles, the same that drag in the plot; lift and tilt; whose it is; how far it reaches down. */
export function TargetCard({
  target,
  family,
  rollOffs,
  extension,
  selected,
  placed,
  onSelect,
  onEdit,
  onOwn,
  onShift,
  onPlaceAgain,
}: TargetCardProps) {
  // each by its name: what asks for all of them is drawn anew with any
  'use memo';
  const latest = useRef(target);
  useEffect(() => {
    latest.current = target;
  });
  const targetNow = useCallback(() => latest.current, []);
  const { handles } = target;
  const index = selected !== null && selected < handles.length ? selected : 0;
  const handle = handles[index]!;
  const inOrder = [...handles.keys()].sort((a, b) => handles[a]!.frequency - handles[b]!.frequency);
  const stepTo = (by: number) => inOrder[inOrder.indexOf(index) + by];
  const set = (next: Partial<TargetHandle>) =>
    onEdit('target handle moved', (now) => ({
      ...now,
      handles: now.handles.map((h, i) => (i === index ? { ...h, ...next } : h)),
    }));
  const doubled = (frequency: number) =>
    handles.some((h, i) => i !== index && Math.abs(h.frequency / frequency - 1) < 0.01);
  const stepButton = (label: string, next: number | undefined, icon: ReactNode) => (
    <ActionIcon
      size="sm"
      variant="default"
      aria-label={label}
      disabled={next === undefined}
      onClick={() => onSelect(next!)}
    >
      {icon}
    </ActionIcon>
  );
  return (
    <section className="card" aria-label="Target">
      <h2>
        Target
        <span style={{ display: 'flex', gap: 6 }}>
          {family ? (
            <SegmentedControl
              size="xs"
              aria-label="Whose target"
              data={[
                { value: 'shared', label: 'shared' },
                { value: 'own', label: `of ${family.name}` },
              ]}
              value={family.own ? 'own' : 'shared'}
              onChange={(v) => onOwn(v === 'own')}
            />
          ) : null}
          <TargetPresets
            targetNow={targetNow}
            onTake={(name, next) =>
              onEdit(`target ${name}`, (now) => ({
                ...next,
                lowExtensionHz: now.lowExtensionHz,
                highExtensionHz: now.highExtensionHz,
              }))
            }
          />
        </span>
      </h2>
      <div className="row compact-fields" style={{ justifyContent: 'flex-start', gap: 6 }}>
        <span
          role="group"
          aria-label="Handles"
          style={{ display: 'flex', alignItems: 'center', gap: 4, whiteSpace: 'nowrap' }}
        >
          {stepButton('Handle to the left', stepTo(-1), <IconChevronLeft size={14} />)}
          <span>
            handle {inOrder.indexOf(index) + 1} of {handles.length}
          </span>
          {stepButton('Handle to the right', stepTo(1), <IconChevronRight size={14} />)}
        </span>
        <ActionIcon
          size="sm"
          variant="default"
          style={{ flexShrink: 0 }}
          aria-label="Add a handle"
          title="Adds a handle where there is most room; double-click in the plot adds one there"
          disabled={handles.length >= MOST_HANDLES}
          onClick={() => {
            onEdit('target handle added', (now) => ({
              ...now,
              handles: [...now.handles, handleInWidestGap(now.handles)],
            }));
            onSelect(handles.length);
          }}
        >
          <IconPlus size={14} />
        </ActionIcon>
        <NumberField
          label="Handle frequency"
          value={handle.frequency}
          unit="Hz"
          min={20}
          max={20000}
          step={10}
          digits={0}
          width={82}
          onChange={(frequency) => !doubled(frequency) && set({ frequency })}
        />
        <NumberField
          label="Handle level"
          value={handle.levelDb}
          unit="dB"
          min={-24}
          max={24}
          step={0.5}
          width={80}
          onChange={(levelDb) => set({ levelDb })}
        />
        <ActionIcon
          variant="default"
          aria-label="Remove this handle"
          disabled={handles.length < 2}
          onClick={() =>
            onEdit('target handle removed', (now) => ({
              ...now,
              handles: now.handles.filter((_, i) => i !== index),
            }))
          }
        >
          <IconTrash size={15} />
        </ActionIcon>
      </div>
      <div className="row" style={{ justifyContent: 'flex-start', gap: 6, whiteSpace: 'nowrap' }}>
        <span title="Lifts what lies below 120 Hz">Lows</span>
        <NumberField
          label="Low-frequency lift"
          value={target.lowLiftDb}
          unit="dB"
          min={-12}
          max={12}
          step={0.5}
          width={76}
          onChange={(lowLiftDb) =>
            onEdit(`low-frequency lift ${lowLiftDb} dB`, (now) => ({ ...now, lowLiftDb }))
          }
        />
        <span title="Tilts what lies above 1 kHz">highs</span>
        <NumberField
          label="High-frequency tilt"
          value={target.highTiltDb}
          unit="dB/oct"
          min={-3}
          max={3}
          step={0.1}
          width={106}
          onChange={(highTiltDb) =>
            onEdit(`high-frequency tilt ${highTiltDb} dB per octave`, (now) => ({ ...now, highTiltDb }))
          }
        />
        <span>level</span>
        <Button
          size="compact-xs"
          variant="default"
          aria-label="Target down by 0.5 dB"
          onClick={() => onShift(-0.5)}
        >
          −
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          aria-label="Target up by 0.5 dB"
          onClick={() => onShift(0.5)}
        >
          +
        </Button>
        <ActionIcon
          size="sm"
          variant="default"
          aria-label="Place again"
          title="Let the target find its level by itself again"
          disabled={!placed}
          onClick={onPlaceAgain}
        >
          <IconRestore size={14} />
        </ActionIcon>
      </div>
      {rollOffs && (rollOffs.low || rollOffs.high) ? (
        <div
          className="row"
          style={{ justifyContent: 'flex-start', gap: '2px 10px', whiteSpace: 'nowrap', flexWrap: 'wrap' }}
        >
          <TargetEnds
            keepsRollOff={target.keepsRollOff}
            lowExtensionHz={target.lowExtensionHz}
            highExtensionHz={target.highExtensionHz}
            rollOffs={rollOffs}
            price={extension}
            onEdit={onEdit}
          />
        </div>
      ) : null}
    </section>
  );
}
