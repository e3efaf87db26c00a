import { READY_TARGETS, type Target } from '@pebble-hall/core/correct';
import { Button, Popover, TextInput } from '@mantine/core';
import { readTargetText, writeTargetText } from '@pebble-hall/core/formats';
import { memo, useEffect, useRef, useState } from 'react';
import { FilePicker } from '../../../parts/FilePicker';
import { saveFile } from '../../../services/saveFile';
import { notify, notifyProblem } from '../../../services/notify';
import { sentenceOf, targetPresets, type TargetPreset } from '../../../store';

const MOST_BYTES = 4e6;

async function targetOf(file: File) {
  if (file.size > MOST_BYTES) throw new Error('the file is too large for a target curve.');
  return readTargetText(await file.text());
}

/**
 * Ready targets, described by their numbers, and one's own, kept for other projects; files in and out. Not drawn again while
 * a hand is on the target.
 */
export const TargetPresets = memo(function TargetPresets({
  targetNow,
  onTake,
}: {
  /** the target as it is when it is kept or saved */
  targetNow: () => Target;
  onTake: (name: string, target: Target) => void;
}) {
  const [own, setOwn] = useState<TargetPreset[]>([]);
  const [name, setName] = useState('');
  const [open, setOpen] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const refresh = () =>
    targetPresets
      .list()
      .then(setOwn)
      .catch(() => setOwn([]));
  useEffect(() => void refresh(), [open]);
  const take = (called: string, next: Target) => {
    setOpen(false);
    onTake(called, next);
  };
  const read = (file: File) =>
    targetOf(file)
      .then((found) => take(found.name ?? file.name, found.target))
      .catch((error: unknown) => notifyProblem(`${file.name}: ${sentenceOf(error)}`));
  const keep = () => {
    const called = name.trim();
    if (!called) return;
    targetPresets
      .put(called, targetNow())
      .then(() => {
        notify(`${called} is kept in your presets, in this browser.`);
        setName('');
      })
      .catch((error: unknown) => notifyProblem(`Not kept: ${sentenceOf(error)}`))
      .finally(() => void refresh());
  };
  return (
    <>
      <Popover opened={open} onChange={setOpen} position="top" withArrow shadow="sm" trapFocus>
        <Popover.Target>
          <Button size="compact-xs" variant="default" onClick={() => setOpen(!open)}>
            Presets
          </Button>
        </Popover.Target>
        <Popover.Dropdown style={{ width: 380, fontSize: 13, display: 'grid', gap: 7 }}>
          <b>Ready targets</b>
          {READY_TARGETS.map(({ name: called, about, target: ready }) => (
            <div key={called} className="row">
              <button className="linkish" onClick={() => take(called, ready)}>
                {called}
              </button>
              <small>{about}</small>
            </div>
          ))}
          {own.length > 0 ? <b>Your own, for every project</b> : null}
          {own.map((t) => (
            <div key={t.name} className="row">
              <button className="linkish" onClick={() => take(t.name, t.target)}>
                {t.name}
              </button>
              <Button
                size="compact-xs"
                variant="default"
                onClick={() => void targetPresets.remove(t.name).finally(() => void refresh())}
              >
                Take off
              </Button>
            </div>
          ))}
          <div className="row">
            <TextInput
              size="xs"
              style={{ flex: 1 }}
              aria-label="Name of the preset"
              placeholder="Keep this one as"
              maxLength={60}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
              onKeyDown={(e) => e.key === 'Enter' && keep()}
            />
            <Button size="compact-sm" variant="default" disabled={!name.trim()} onClick={keep}>
              Keep
            </Button>
          </div>
          <div className="row">
            <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
              Read a text file
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => saveFile('target.txt', writeTargetText('Target', targetNow()), 'text/plain')}
            >
              Save as text
            </Button>
          </div>
        </Popover.Dropdown>
      </Popover>
      <FilePicker
        label="Target file"
        accept=".txt,.csv,text/plain"
        picker={picker}
        onFile={(file) => void read(file)}
      />
    </>
  );
});
