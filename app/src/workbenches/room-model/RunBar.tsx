import { ActionIcon, Button, Menu, NativeSelect } from '@mantine/core';
import { IconDots } from '../../icons';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import type { RunState } from '../../services/runQueue';
import { holdRun, roomRuns } from '../../services/roomRuns';
import { leftWords } from '../../words/runWords';
import { moreRays, removeRun, runShownAgain } from './changeRuns';
import { NewRunDialog } from './NewRunDialog';
import type { Runs } from './useRuns';

/** Which run is looked at, what it is beside, and what can be done with it. */
export function RunBar({
  project,
  runs,
  onNew,
}: {
  project: Project;
  runs: Runs;
  /** a run was begun: its question may be asked */
  onNew: () => void;
}) {
  const { all, states, shown, beside, setShown, setBeside } = runs;
  const [isNew, setNew] = useState(false);
  const state = shown ? states[shown.id] : undefined;
  return (
    <span style={{ display: 'flex', gap: 8, alignItems: 'center', marginLeft: 'auto' }}>
      {shown ? (
        <>
          <NativeSelect
            size="xs"
            aria-label="Run"
            data={all.map((r) => ({ value: r.id, label: `${r.name}${stateText(states[r.id], r.isHeld)}` }))}
            value={shown.id}
            onChange={(e) => setShown(e.currentTarget.value)}
            w={200}
          />
          {all.length > 1 ? (
            <NativeSelect
              size="xs"
              aria-label="Beside it"
              data={[
                { value: '', label: 'nothing beside' },
                ...all
                  .filter((r) => r.id !== shown.id)
                  .map((r) => ({ value: r.id, label: `beside ${r.name}` })),
              ]}
              value={beside?.id ?? ''}
              onChange={(e) => setBeside(e.currentTarget.value)}
              w={150}
            />
          ) : null}
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon size="md" variant="default" aria-label="This run">
                <IconDots size={15} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              {shown.isHeld || state?.problem ? (
                <Menu.Item
                  onClick={() =>
                    state?.problem ? roomRuns().tryAgain(shown.id) : void holdRun(shown.id, false)
                  }
                >
                  Go on
                </Menu.Item>
              ) : state && state.share < 1 ? (
                <Menu.Item onClick={() => void holdRun(shown.id, true)}>Stop here</Menu.Item>
              ) : null}
              <Menu.Item onClick={() => void moreRays(shown, 2)}>Twice the rays</Menu.Item>
              <Menu.Item onClick={() => void moreRays(shown, 4)}>Four times the rays</Menu.Item>
              <Menu.Item onClick={() => void runShownAgain(project, runs)}>
                Run again as the room is now
              </Menu.Item>
              <Menu.Item color="red" onClick={() => void removeRun(shown)}>
                Remove
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </>
      ) : null}
      <Button size="xs" onClick={() => setNew(true)}>
        New run
      </Button>
      {isNew ? (
        <NewRunDialog
          project={project}
          onClose={() => setNew(false)}
          onMade={(id) => {
            setShown(id);
            onNew();
          }}
        />
      ) : null}
    </span>
  );
}

function stateText(state: RunState | undefined, isHeld: boolean): string {
  if (!state || state.share >= 1) return '';
  const share = ` · ${Math.round(100 * state.share)} %`;
  if (state.problem) return `${share}, failed`;
  if (isHeld) return `${share}, stopped`;
  const left = leftWords(state.secondsLeft);
  return `${share}${left ? `, ${left}` : ''}`;
}
