import { Button, Menu, Progress } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { foreignIn } from '../../services/holding';
import { loadMemory, memoryWork, refreshMemories } from '../../services/memoryWork';
import { silence } from '../../services/running';
import { theProcessor } from '../../services/theProcessor';

interface LoadIntoMemoryProps {
  project: Project;
  /** makes a variant of what is set, and shows it @returns its name; null where it was not made */
  onTake: () => Promise<string | null>;
}

/** What is set here, with the correction of every channel, goes into a memory of the processor; Hand over verifies it there. */
export function LoadIntoMemory({ project, onTake }: LoadIntoMemoryProps) {
  const { state, work } = useStore(memoryWork);
  useEffect(() => void refreshMemories(), []);
  const { memories } = theProcessor().profile;
  if (memories.length === 0) return null;
  const holds = (letter: string) => {
    const memory = state?.memories.find((m) => m.letter === letter);
    if (!memory) return letter;
    const foreign = foreignIn(project, state, letter);
    const what =
      'empty' in memory ? 'empty' : foreign ? `${foreign}, not of this project` : memory.name || 'no name';
    return `${letter}${state!.active === letter ? ', active' : ''}: ${what}`;
  };
  const load = async (letter: string) => {
    const name = await onTake();
    if (name) await loadMemory(letter, name.slice(0, 40), false);
  };
  return (
    <Menu shadow="sm" position="top-end">
      <Menu.Target>
        <Button size="compact-xs" variant="default" aria-label="Load into a memory" disabled={work !== null}>
          Load …
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>into memory</Menu.Label>
        {memories.map((letter) => (
          <Menu.Item
            key={letter}
            // overwriting it is asked for, in Hand over
            disabled={!state || foreignIn(project, state, letter) !== null}
            onClick={() => void load(letter)}
          >
            {holds(letter)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

/** How loading into a memory stands. */
export function LoadingNow() {
  const { work, problem, readBack } = useStore(memoryWork);
  if (work)
    return (
      <div style={{ display: 'grid', gap: 4, fontSize: 12, flexShrink: 0 }}>
        <div className="row">
          <span>{work.what}</span>
          <Button size="compact-xs" variant="default" onClick={silence}>
            {work.pauses ? 'Pause' : 'Cancel'}
          </Button>
        </div>
        <Progress value={100 * work.share} aria-label="Progress of the memory" />
      </div>
    );
  if (problem)
    return (
      <span className="attention" role="alert" style={{ fontSize: 12 }}>
        {problem}
      </span>
    );
  return readBack ? <span style={{ fontSize: 12 }}>{readBack}</span> : null;
}
