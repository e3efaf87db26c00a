import { ActionIcon, Button, NativeSelect, Popover, Switch, TextInput } from '@mantine/core';
import type { LibraryLook, Project } from '@pebble-hall/core/project';
import { IconX } from '../../../icons';
import { useState } from 'react';
import { BandFields } from '../../../parts/BandFields';
import { NumberField } from '../../../parts/NumberField';
import { traceName } from '../../../services/libraryCurves';
import { keepLibraryView, recallLibraryView, removeLibraryView } from './libraryViews';

interface Props {
  project: Project;
  look: LibraryLook;
  onLook: (change: Partial<LibraryLook>) => void;
  /** traces that are drawn */
  shownIds: string[];
}

/** How the library is looked at: differences against what, a target as a band, a band that is marked, and views by name. */
export function LookMenu({ project, look, onLook, shownIds }: Props) {
  const [name, setName] = useState('');
  const known = [...new Set([...shownIds, look.againstId, look.target?.traceId])].flatMap((id) => {
    const label = typeof id === 'string' ? traceName(project, id) : null;
    return label === null ? [] : [{ value: id as string, label }];
  });
  const options = [{ value: '', label: 'nothing' }, ...known];
  const keep = async () => {
    if (await keepLibraryView(name.trim(), look)) setName('');
  };
  return (
    <Popover position="bottom-end" shadow="md" width={330} trapFocus>
      <Popover.Target>
        <Button size="compact-xs" variant="default">
          Look
        </Button>
      </Popover.Target>
      <Popover.Dropdown
        aria-label="How the traces are looked at"
        style={{ display: 'flex', flexDirection: 'column', gap: 8 }}
      >
        <NativeSelect
          size="xs"
          label="Differences against"
          aria-label="Differences against"
          data={options}
          value={
            look.againstId !== null && known.some((k) => k.value === look.againstId) ? look.againstId : ''
          }
          onChange={(e) => {
            const againstId = e.currentTarget.value || null;
            const isSeen = look.plots.some((p) => p.includes('ifference'));
            onLook(
              againstId === null || isSeen
                ? { againstId }
                : {
                    againstId,
                    plots: ['Difference', ...look.plots.slice(1).filter((p) => p !== 'Difference')],
                  },
            );
          }}
        />
        <div className="row" style={{ alignItems: 'end' }}>
          <NativeSelect
            size="xs"
            label="Target, drawn as a band"
            aria-label="Target, drawn as a band"
            style={{ flex: 1 }}
            data={options}
            value={
              look.target && known.some((k) => k.value === look.target!.traceId) ? look.target.traceId : ''
            }
            onChange={(e) => {
              const traceId = e.currentTarget.value;
              onLook({ target: traceId ? { traceId, toleranceDb: look.target?.toleranceDb ?? 3 } : null });
            }}
          />
          <NumberField
            label="How far from the target"
            value={look.target?.toleranceDb ?? 3}
            unit="dB"
            min={0.1}
            max={40}
            step={0.5}
            width={84}
            onChange={(toleranceDb) => look.target && onLook({ target: { ...look.target, toleranceDb } })}
          />
        </div>
        <div className="row">
          <Switch
            size="xs"
            label="Mark"
            checked={look.marked !== null}
            onChange={(e) =>
              onLook({
                marked: e.currentTarget.checked
                  ? look.toHz / look.fromHz < 900
                    ? { from: look.fromHz, to: look.toHz }
                    : { from: 60, to: 200 }
                  : null,
              })
            }
          />
          {look.marked ? (
            <BandFields
              names={['Marked from', 'Marked to']}
              band={look.marked}
              min={20}
              step={10}
              least={1.1}
              width={76}
              onChange={(marked) => onLook({ marked })}
            />
          ) : null}
        </div>
        {project.libraryViews.map((view) => (
          <div key={view.id} className="row">
            <Button
              size="compact-xs"
              variant="default"
              style={{ flex: 1 }}
              onClick={() => {
                onLook(view.look);
                void recallLibraryView(view);
              }}
            >
              {view.name}
            </Button>
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label={`Forget the view ${view.name}`}
              onClick={() => void removeLibraryView(view.id)}
            >
              <IconX size={14} />
            </ActionIcon>
          </div>
        ))}
        <div className="row">
          <TextInput
            size="xs"
            aria-label="Name of this view"
            placeholder="Name of this view"
            value={name}
            maxLength={120}
            style={{ flex: 1 }}
            onChange={(e) => setName(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Enter' && name.trim() !== '' && void keep()}
          />
          <Button size="compact-xs" disabled={name.trim() === ''} onClick={() => void keep()}>
            Keep this view
          </Button>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
