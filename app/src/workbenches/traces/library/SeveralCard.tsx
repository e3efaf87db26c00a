import { Button, TextInput } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { changeTraces } from './changeTraces';

/** Several traces at once: put into a folder, shown, hidden. */
export function SeveralCard({ project, ids }: { project: Project; ids: string[] }) {
  const kept = ids.filter((id) => project.kept.some((k) => k.id === id));
  const [folder, setFolder] = useState('');
  const show = (isShown: boolean) =>
    void changeTraces(isShown ? 'traces shown' : 'traces hidden', kept, (k) => ({
      ...k,
      view: { ...k.view, isShown },
    }));
  return (
    <section aria-label="Chosen traces" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>{ids.length} traces</h2>
      <div className="row">
        <TextInput
          size="xs"
          aria-label="Folder for all"
          placeholder="Folder for all"
          value={folder}
          maxLength={100}
          onChange={(e) => setFolder(e.currentTarget.value)}
          onKeyDown={(e) =>
            e.key === 'Enter' &&
            void changeTraces('folder of traces', kept, (k) => ({ ...k, folder: folder.trim() }))
          }
          style={{ flex: 1 }}
        />
        <Button size="compact-xs" variant="default" onClick={() => show(true)}>
          Show
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => show(false)}>
          Hide
        </Button>
      </div>
    </section>
  );
}
