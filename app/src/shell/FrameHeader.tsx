import { ActionIcon, Button, Menu, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconDeviceFloppy,
  IconFolderOpen,
  IconMoon,
  IconPlus,
  IconRefresh,
  IconStack2,
  IconSun,
} from '../icons';
import { useEffect, useRef, useState } from 'react';
import { openDemo, openProjectHere, projectOwner, sentenceOf } from '../store';
import { NewProjectDialog } from './NewProjectDialog';
import { ProjectsDialog } from './ProjectsDialog';
import { JobPills } from './JobPills';
import { LivePill } from './LivePill';
import { stepTo } from './navigation';
import { ChainPill } from './ChainPill';
import { openProjectFile, saveProjectFile } from '../services/projectFile';
import { FilePicker } from '../parts/FilePicker';
import { SilenceButton } from './SilenceButton';
import { notify, notifyProblem } from '../services/notify';
import { rigName } from '../services/theRig';

/** Mark, place, what is in the chain, undo, files, look. */
export function FrameHeader({
  project,
  undo,
  redo,
}: {
  project: Project;
  undo: string | null;
  redo: string | null;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const [showsProjects, setShowsProjects] = useState(false);
  const [makes, setMakes] = useState(false);
  const step = async (direction: 'undo' | 'redo') => {
    try {
      const label = await projectOwner()[direction]();
      if (label) notify(`${direction === 'undo' ? 'Undone' : 'Done again'}: ${label}.`);
    } catch (error) {
      notifyProblem(sentenceOf(error));
    }
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const field = (event.target as Element | null)?.closest?.('input, textarea');
      if (!(event.ctrlKey || event.metaKey) || field) return;
      const key = event.key.toLowerCase();
      if (key === 'z' && !event.shiftKey) void step('undo');
      else if (key === 'y' || (key === 'z' && event.shiftKey)) void step('redo');
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
  return (
    <header className="frame-header">
      <a className="frame-mark" href="/">
        <svg width="30" height="28" viewBox="0 0 30 28" aria-hidden="true">
          <ellipse cx="15" cy="22.5" rx="12.5" ry="4.6" fill="var(--stone-ink)" />
          <ellipse cx="14" cy="14" rx="9.2" ry="3.9" fill="var(--kelp)" />
          <ellipse cx="16" cy="6.6" rx="6" ry="3.2" fill="var(--buoy)" />
        </svg>
        Pebble Hall
      </a>
      <span className="frame-place">
        {project.name}, <b>{project.place.name}</b>
      </span>
      <span style={{ flex: 1 }} />
      <JobPills />
      <LivePill project={project} />
      <ChainPill
        processor={project.processor}
        listening={project.chains.find((c) => c.id === project.chainId)?.name ?? null}
      />
      <span className="pill" style={{ maxWidth: 240, overflow: 'hidden', textOverflow: 'ellipsis' }}>
        {project.rig.kind === 'simulated' ? 'Simulated rig' : rigName(project)}, <b>{rateText(project)}</b>
      </span>
      <ActionIcon.Group>
        <ActionIcon
          variant="default"
          size="lg"
          aria-label={undo ? `Undo: ${undo}` : 'Undo'}
          title={undo ? `Undo: ${undo} (Ctrl Z)` : 'Nothing to undo'}
          disabled={!undo}
          onClick={() => void step('undo')}
        >
          <IconArrowBackUp size={18} />
        </ActionIcon>
        <ActionIcon
          variant="default"
          size="lg"
          aria-label={redo ? `Redo: ${redo}` : 'Redo'}
          title={redo ? `Redo: ${redo} (Ctrl Y)` : 'Nothing to redo'}
          disabled={!redo}
          onClick={() => void step('redo')}
        >
          <IconArrowForwardUp size={18} />
        </ActionIcon>
      </ActionIcon.Group>
      <Menu position="bottom-end" width={270}>
        <Menu.Target>
          <Button variant="default" size="compact-md" style={{ flexShrink: 0 }}>
            Project
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item leftSection={<IconPlus size={16} />} onClick={() => setMakes(true)}>
            New project
          </Menu.Item>
          <Menu.Item
            leftSection={<IconDeviceFloppy size={16} />}
            onClick={() => void saveProjectFile(project)}
          >
            Save project file
          </Menu.Item>
          <Menu.Item leftSection={<IconFolderOpen size={16} />} onClick={() => picker.current?.click()}>
            Open project file
          </Menu.Item>
          <Menu.Item leftSection={<IconStack2 size={16} />} onClick={() => setShowsProjects(true)}>
            All projects
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item
            leftSection={<IconRefresh size={16} />}
            onClick={() =>
              void openDemo(true)
                .then(openProjectHere)
                .then(() => stepTo('/'))
                .catch((error: unknown) => notifyProblem(sentenceOf(error)))
            }
          >
            Start the demo afresh, keep this one
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <NewProjectDialog opened={makes} onClose={() => setMakes(false)} />
      <ProjectsDialog
        current={project.id}
        opened={showsProjects}
        onClose={() => setShowsProjects(false)}
        onNew={() => {
          setShowsProjects(false);
          setMakes(true);
        }}
      />
      <FilePicker
        label="Project file"
        accept=".zip"
        picker={picker}
        onFile={(file) => void openProjectFile(file)}
      />
      <SchemeSwitch />
      <SilenceButton />
    </header>
  );
}

const rateText = ({ rig }: Project) =>
  rig.kind === 'simulated' ? '48 kHz' : rig.device ? `${rig.device.rate / 1000} kHz` : 'no devices';

function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const other = scheme === 'light' ? 'dark' : 'light';
  return (
    <ActionIcon
      variant="default"
      size="lg"
      aria-label={other === 'dark' ? 'Dusk: dark look' : 'Daylight: light look'}
      title={other === 'dark' ? 'Dusk' : 'Daylight'}
      onClick={() => setColorScheme(other)}
    >
      {other === 'dark' ? <IconMoon size={18} /> : <IconSun size={18} />}
    </ActionIcon>
  );
}
