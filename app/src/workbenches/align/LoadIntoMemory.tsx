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
  const { state, work, problem, readBack } = useStore(memoryWork);
  useEffect(() => void refreshMemories(), []);
  const { memories } = theProcessor().profile;
  const handOver = (
    <a className="linkish" href="/hand-over">
      {memories.length > 0 ? 'Hand over verifies it.' : 'Hand over saves it as files.'}
    </a>
  );
  if (memories.length === 0) return <span style={{ fontSize: 12 }}>{handOver}</span>;
  const holds = (letter: string) => {
    const memory = state?.memories.find((m) => m.letter === letter);
    if (!memory) return letter;
    const foreign = foreignIn(project, state, letter);
    const what = 'empty' in memory ? 'empty' : foreign ? `overwrites ${foreign}` : memory.name || 'no name';
    return `${letter}${state!.active === letter ? ', active' : ''}: ${what}`;
  };
  const load = async (letter: string) => {
    const name = await onTake();
    if (name) await loadMemory(letter, name.slice(0, 40), false);
  };
  if (work)
    return (
      <div style={{ display: 'grid', gap: 4, fontSize: 12 }}>
        <div className="row">
          <span>{work.what}</span>
          <Button size="compact-xs" variant="default" onClick={silence}>
            {work.pauses ? 'Pause' : 'Cancel'}
          </Button>
        </div>
        <Progress value={100 * work.share} aria-label="Progress of the memory" />
      </div>
    );
  return (
    <div style={{ display: 'grid', gap: 4, fontSize: 12 }}>
      <div className="row" style={{ justifyContent: 'flex-start', gap: 8 }}>
        <Menu shadow="sm" position="top-start">
          <Menu.Target>
            <Button size="compact-sm" variant="default">
              Load into a memory …
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {memories.map((letter) => (
              <Menu.Item key={letter} onClick={() => void load(letter)}>
                {holds(letter)}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        {handOver}
      </div>
      {problem ? (
        <span className="attention" role="alert">
          {problem}
        </span>
      ) : readBack ? (
        <span>{readBack}</span>
      ) : null}
    </div>
  );
}
