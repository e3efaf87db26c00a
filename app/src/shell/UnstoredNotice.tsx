import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { useStore } from 'zustand';
import { saveProjectFile } from '../services/projectFile';
import { storeAgain, unstored } from '../services/unstored';

/** Over every workbench: what was measured and could not be stored, why, and what to do. */
export function UnstoredNotice({ project }: { project: Project }) {
  const { waiting } = useStore(unstored);
  const [busy, setBusy] = useState(false);
  const first = waiting[0];
  if (!first) return null;
  const others = waiting.length - 1;
  return (
    <div className="notice" role="alert">
      <span>
        The {first.label}
        {others > 0 ? ` and ${others} more` : ''} could not be stored and {others > 0 ? 'are' : 'is'} kept in
        this tab only. {first.problem}
      </span>
      <Button
        size="compact-md"
        loading={busy}
        onClick={() => {
          setBusy(true);
          void storeAgain().finally(() => setBusy(false));
        }}
      >
        Store again
      </Button>
      {waiting.some((u) => u.projectId === project.id) ? (
        <Button size="compact-md" variant="default" onClick={() => void saveProjectFile(project)}>
          Save the project file with it
        </Button>
      ) : null}
    </div>
  );
}
