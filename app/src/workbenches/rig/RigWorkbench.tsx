import { Button, Progress } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { running, stopRunning } from '../../services/running';
import { clearProblem } from '../../services/notify';
import { rigName } from '../../services/theRig';
import { changeProject } from '../../services/changeProject';
import { PracticeButton } from './connect/PracticeButton';
import { useGuarded } from './useGuarded';
import { evidenceOf, VIEWS, type View } from './views';

const shown = {
  Connect: lazy(() => import('./connect/ConnectView')),
  Microphones: lazy(() => import('./microphones/MicrophonesView')),
  Level: lazy(() => import('./level/LevelView')),
  Channels: lazy(() => import('./channels/ChannelsView')),
  Distances: lazy(() => import('./distances/DistancesView')),
};

const viewOfHash = (): View =>
  VIEWS.find((v) => v.toLowerCase() === location.hash.slice(1).toLowerCase()) ?? 'Channels';

/** Is every link of the chain right, and loud enough over the noise? */
export default function RigWorkbench({ project }: { project: Project }) {
  const change = changeProject;
  const guarded = useGuarded();
  const busy = useStore(running, (r) => r.what);
  const [view, setView] = useState<View>(viewOfHash);
  useEffect(() => {
    const follow = () => setView(viewOfHash());
    addEventListener('hashchange', follow);
    return () => removeEventListener('hashchange', follow);
  }, []);
  const Shown = shown[view];
  return (
    <div className="work" style={{ gridTemplateRows: '36px minmax(0, 1fr)', height: '100%' }}>
      <div className="chips">
        <div role="tablist" aria-label="Parts of the rig" className="chips">
          {VIEWS.map((v) => (
            <button
              key={v}
              role="tab"
              className="chip"
              aria-selected={v === view}
              aria-label={`${v}, ${evidenceOf(project, v)}`}
              onClick={() => {
                history.replaceState(null, '', `#${v.toLowerCase()}`);
                clearProblem();
                setView(v);
              }}
            >
              {v} <small>{evidenceOf(project, v)}</small>
            </button>
          ))}
        </div>
        <span style={{ flex: 1 }} />
        {busy ? (
          <>
            <Progress value={100 * guarded.progress} w={110} aria-label="Progress" />
            <span
              className="quiet"
              style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {busy}
            </span>
            <Button size="compact-md" variant="default" style={{ flexShrink: 0 }} onClick={stopRunning}>
              Cancel
            </Button>
          </>
        ) : (
          <>
            <span
              className="quiet"
              style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {rigName(project)}
            </span>
            {project.rig.kind === 'simulated' ? <PracticeButton /> : null}
          </>
        )}
      </div>
      <Suspense fallback={<p className="quiet">Opening …</p>}>
        <Shown project={project} change={change} guarded={guarded} busy={busy !== null} />
      </Suspense>
    </div>
  );
}
