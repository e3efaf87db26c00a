import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import '../parts/look.css';
import { MantineProvider, VisuallyHidden } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import type { Project } from '@pebble-hall/core/project';
import { Suspense, useEffect, useState, type ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { currentId, openCurrentProject, sentenceOf, useProject } from '../store';
import { Blocked } from './Blocked';
import { FrameHeader } from './FrameHeader';
import { StoneRow } from './StoneRow';
import { Unshown } from './Unshown';
import { UnstoredNotice } from './UnstoredNotice';
import { styleNonce } from '../parts/styleNonce';
import { theme } from '../parts/theme';

export interface FrameProps {
  /** address of this page, to mark its stone */
  path: string;
  title: string;
  children: (project: Project) => ReactNode;
}

/** What every page has around its workbench: providers, header, stones, and what stands in the way, if anything does. */
export function Frame({ path, title, children }: FrameProps) {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto" {...styleNonce}>
      {/* over the lower part of the plot: never over what one presses next */}
      <Notifications position="bottom-center" containerWidth={520} />
      <ErrorBoundary
        fallbackRender={({ error }) => <Blocked problem={sentenceOf(error)} current={currentId()} />}
      >
        <Opened path={path} title={title}>
          {children}
        </Opened>
      </ErrorBoundary>
    </MantineProvider>
  );
}

function Opened({ path, title, children }: FrameProps) {
  const open = useProject();
  useEffect(() => void openCurrentProject(), []);
  const elsewhere = useOpenElsewhere(open.status === 'ready' ? open.project.id : null);
  if (open.status === 'blocked') {
    return <Blocked problem={open.problem} current={currentId()} />;
  }
  if (open.status === 'loading') return <main className="shed quiet">Opening the project …</main>;
  const { project, undo, redo } = open;
  return (
    <div className="frame">
      <FrameHeader project={project} undo={undo} redo={redo} />
      <StoneRow project={project} path={path} />
      <div>
        <UnstoredNotice project={project} />
        {elsewhere ? (
          <div className="notice calm" role="status">
            <span>
              This project is also open in another tab. Both show the same; only one can measure at a time.
            </span>
          </div>
        ) : null}
      </div>
      <main aria-label={title} style={{ minHeight: 0, overflow: 'auto' }}>
        <VisuallyHidden>
          <h1>{title}</h1>
        </VisuallyHidden>
        <ErrorBoundary
          resetKeys={[path, project]}
          fallbackRender={({ error, resetErrorBoundary }) => (
            <Unshown title={title} project={project} undo={undo} error={error} onAgain={resetErrorBoundary} />
          )}
        >
          <Suspense>{children(project)}</Suspense>
        </ErrorBoundary>
      </main>
    </div>
  );
}

/** Whether another tab of this browser has the project open. */
function useOpenElsewhere(projectId: string | null): boolean {
  const [elsewhere, setElsewhere] = useState(false);
  useEffect(() => {
    if (!projectId) return;
    const me = crypto.randomUUID();
    const others = new Map<string, number>();
    const channel = new BroadcastChannel(`pebble-hall.open.${projectId}`);
    const say = (kind: 'here' | 'gone') => channel.postMessage({ me, kind });
    channel.onmessage = ({ data }: MessageEvent<{ me: string; kind: string }>) => {
      if (data.kind === 'gone') others.delete(data.me);
      else {
        if (!others.has(data.me)) say('here');
        others.set(data.me, Date.now());
      }
      setElsewhere(others.size > 0);
    };
    say('here');
    const timer = setInterval(() => {
      say('here');
      for (const [id, seen] of others) if (Date.now() - seen > 7000) others.delete(id);
      setElsewhere(others.size > 0);
    }, 3000);
    const gone = () => say('gone');
    addEventListener('pagehide', gone);
    return () => {
      removeEventListener('pagehide', gone);
      clearInterval(timer);
      gone();
      channel.close();
    };
  }, [projectId]);
  return elsewhere;
}
