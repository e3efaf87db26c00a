import { Button, Progress } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { Frame } from '../../parts/Frame';
import { running, silence } from '../../parts/running';
import { clearProblem } from '../../parts/tell';
import { rigName } from '../../parts/theRig';
import { useChange, type Change } from '../../parts/useChange';
import { PracticeButton } from './PracticeButton';
import { useGuarded, type Guarded } from './useGuarded';
import { evidenceOf, VIEWS, type View } from './views';

/** What every view of the Rig is given. */
export interface ViewProps {
  project: Project;
  change: Change;
  guarded: Guarded;
  busy: boolean;
}

const shown = {
  Connect: lazy(() => import('./ConnectView')),
  Microphones: lazy(() => import('./MicrophonesView')),
  Level: lazy(() => import('./LevelView')),
  Channels: lazy(() => import('./ChannelsView')),
  Distances: lazy(() => import('./DistancesView')),
};

/** Is every link of the chain right, and loud enough over the noise? */
export function RigWorkbench() {
  return (
    <Frame path="/rig" title="Rig">
      {(project) => <Rig project={project} />}
    </Frame>
  );
}

const viewOfHash = (): View =>
  VIEWS.find((v) => v.toLowerCase() === location.hash.slice(1).toLowerCase()) ?? 'Channels';

function Rig({ project }: { project: Project }) {
  const change = useChange(project.id);
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
            <Button size="compact-md" variant="default" style={{ flexShrink: 0 }} onClick={silence}>
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
