import { Button, Menu } from '@mantine/core';
import { IconEye, IconEyeOff, IconStack2 } from '../../../icons';
import { MODEL_ENDINGS, PICTURE_ENDINGS } from '@pebble-hall/core/drawings';
import type { Place } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import { FilePicker } from '../../../parts/FilePicker';
import { notifyProblem } from '../../../services/notify';
import { LayUnderDialog } from './LayUnderDialog';
import type { OpenedFile } from './layUnder';

const ACCEPT = [...PICTURE_ENDINGS, ...MODEL_ENDINGS].map((e) => `.${e}`).join(',');
/** Larger is refused before it is read. */
const MOST_BYTES = 500e6;

interface UnderlayMenuProps {
  place: Place;
  selected: ReadonlySet<string>;
  onSelected: (ids: ReadonlySet<string>) => void;
}

/** Drawings by others that lie under the plan: chosen here, and more of them laid under. */
export function UnderlayMenu({ place, selected, onSelected }: UnderlayMenuProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<OpenedFile | null>(null);
  const { underlays } = place;
  const open = async (chosen: File) => {
    try {
      if (chosen.size > MOST_BYTES)
        throw new Error(`It has ${Math.round(chosen.size / 1e6)} MB: save it smaller, or reduced.`);
      setFile({ name: chosen.name, type: chosen.type, bytes: new Uint8Array(await chosen.arrayBuffer()) });
    } catch (error) {
      notifyProblem(`${chosen.name} cannot be read. ${error instanceof Error ? error.message : ''}`);
    }
  };
  return (
    <>
      <Menu position="bottom-start" shadow="sm" width={240}>
        <Menu.Target>
          <Button size="compact-md" variant="default" leftSection={<IconStack2 size={15} />}>
            Drawings
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {underlays.map((u) => (
            <Menu.Item
              key={u.id}
              leftSection={u.isShown ? <IconEye size={15} /> : <IconEyeOff size={15} />}
              aria-current={selected.has(u.id)}
              onClick={() => onSelected(new Set([u.id]))}
            >
              {u.name}
            </Menu.Item>
          ))}
          {underlays.length > 0 ? <Menu.Divider /> : null}
          <Menu.Item disabled={underlays.length >= 50} onClick={() => picker.current?.click()}>
            Picture, or drawing by others …
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <FilePicker
        label="Picture or drawing by others"
        accept={ACCEPT}
        picker={picker}
        onFile={(chosen) => void open(chosen)}
      />
      {file ? (
        <LayUnderDialog
          file={file}
          place={place}
          onClose={(id) => {
            setFile(null);
            if (id) onSelected(new Set([id]));
          }}
        />
      ) : null}
    </>
  );
}
