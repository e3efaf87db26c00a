import { ActionIcon, Menu } from '@mantine/core';
import {
  IconCopy,
  IconFlipHorizontal,
  IconLayoutAlignCenter,
  IconLock,
  IconLockOpen,
  IconTrash,
} from '../../icons';
import {
  withAligned,
  withDistributed,
  withDuplicates,
  withMirrored,
  type Place,
  type Project,
} from '@pebble-hall/core/project';
import { removeChosen } from './removeChosen';
import { editPlace } from './usePlan';

/** Copies lie beside what they were made from, metres. */
const BESIDE = { x: 0.4, y: 0.4, z: 0 };

interface ChooseBarProps {
  project: Project;
  selected: ReadonlySet<string>;
  onSelected: (ids: ReadonlySet<string>) => void;
}

/** What can be done with all that is chosen. */
export function ChooseBar({ project, selected, onSelected }: ChooseBarProps) {
  const count = selected.size;
  const chosen = project.place.loudspeakers.filter((l) => selected.has(l.id));
  const areLocked = chosen.length > 0 && chosen.every((l) => l.locked);
  // a drawing by others is not copied: it lies under the whole place
  const isCopied = !project.place.underlays.some((u) => selected.has(u.id));
  if (count === 0) return null;
  const copy = async (label: string, make: typeof withMirrored) => {
    let made: ReadonlySet<string> = selected;
    const done = await editPlace(label, (p) => {
      const { place, ids } = make(p, selected, () => crypto.randomUUID());
      made = ids;
      return place;
    });
    if (done) onSelected(made);
  };
  const remove = async () => {
    const kept = await removeChosen(project, selected);
    onSelected(kept);
  };
  const lock = () =>
    void editPlace(areLocked ? 'unlocked' : 'locked', (p) => ({
      ...p,
      loudspeakers: p.loudspeakers.map((l) => (selected.has(l.id) ? { ...l, locked: !areLocked } : l)),
    }));
  const line = (label: string, change: (p: Place) => Place) => (
    <Menu.Item onClick={() => void editPlace(label.toLowerCase(), change)}>{label}</Menu.Item>
  );
  return (
    <div role="toolbar" aria-label="What is chosen" style={{ display: 'flex', gap: 5, alignItems: 'center' }}>
      <span className="quiet">{count} chosen</span>
      <ActionIcon
        variant="default"
        aria-label="Duplicate"
        title="Duplicate"
        disabled={!isCopied}
        onClick={() => void copy('duplicated', (p, ids, newId) => withDuplicates(p, ids, newId, BESIDE))}
      >
        <IconCopy size={15} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        aria-label="Mirror to the other side"
        title="Mirror to the other side of the centre line"
        disabled={!isCopied}
        onClick={() => void copy('mirrored', withMirrored)}
      >
        <IconFlipHorizontal size={15} style={{ transform: 'rotate(90deg)' }} />
      </ActionIcon>
      {count > 1 ? (
        <Menu position="bottom-end" shadow="sm">
          <Menu.Target>
            <ActionIcon variant="default" aria-label="Bring into line" title="Bring into line">
              <IconLayoutAlignCenter size={15} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            {line('As far from the front', (p) => withAligned(p, selected, 'x'))}
            {line('As far from the left', (p) => withAligned(p, selected, 'y'))}
            {line('At one height', (p) => withAligned(p, selected, 'z'))}
            {count > 2 ? (
              <>
                <Menu.Divider />
                {line('Equal steps from front to rear', (p) => withDistributed(p, selected, 'x'))}
                {line('Equal steps from left to right', (p) => withDistributed(p, selected, 'y'))}
              </>
            ) : null}
          </Menu.Dropdown>
        </Menu>
      ) : null}
      {chosen.length > 0 ? (
        <ActionIcon
          variant={areLocked ? 'light' : 'default'}
          aria-label={areLocked ? 'Unlock' : 'Lock'}
          title={areLocked ? 'Unlock' : 'Lock in place'}
          onClick={lock}
        >
          {areLocked ? <IconLock size={15} /> : <IconLockOpen size={15} />}
        </ActionIcon>
      ) : null}
      <ActionIcon variant="default" aria-label="Remove" title="Remove" onClick={() => void remove()}>
        <IconTrash size={15} />
      </ActionIcon>
    </div>
  );
}
