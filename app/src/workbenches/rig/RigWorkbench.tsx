import { Button, Progress, SegmentedControl } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { useStore } from 'zustand';
import { Frame } from '../../parts/Frame';
import { fittedOf } from '../../parts/progress';
import { running, silence } from '../../parts/running';
import { useChange } from '../../parts/useChange';
import { ChannelList } from './ChannelList';
import { LevelCard } from './LevelCard';
import { MicrophoneCard } from './MicrophoneCard';
import { NoisePlot } from './NoisePlot';
import { PracticeCard } from './PracticeCard';
import { useRigWork } from './useRigWork';

/** Is every link of the chain right, and loud enough over the noise? */
export function RigWorkbench() {
  return (
    <Frame path="/rig" title="Rig">
      {(project) => <Rig project={project} />}
    </Frame>
  );
}

function Rig({ project }: { project: Project }) {
  const change = useChange(project.id);
  const [chosen, setChosen] = useState<string | null>(null);
  const work = useRigWork(project, change);
  const busy = useStore(running, (r) => r.what);
  const { rig } = project;
  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 372px',
        gridTemplateRows: '36px minmax(0, 1fr) auto',
        height: '100%',
      }}
    >
      <div className="chips" style={{ gridColumn: '1 / 3' }}>
        <span className="pill">
          Interface <b>Burrow 8</b>, simulated
        </span>
        <span className="pill">
          Microphone on <b>input 1</b>, loopback on <b>input 2</b>
        </span>
        <SegmentedControl
          aria-label="Pace of the stand-in"
          size="xs"
          data={[
            { value: 'quick', label: 'No waiting' },
            { value: 'real time', label: 'Real time' },
          ]}
          value={rig.pace}
          onChange={(pace) =>
            void change('pace of the rig', (p) => ({ ...p, rig: { ...p.rig, pace: pace as 'quick' } }))
          }
        />
        <span style={{ flex: 1 }} />
        {busy ? (
          <>
            <Progress value={100 * work.progress} w={160} aria-label="Progress" />
            <span className="quiet">{busy}</span>
            <Button size="compact-md" variant="default" onClick={silence}>
              Cancel
            </Button>
          </>
        ) : (
          <>
            <Button size="compact-md" variant="default" onClick={work.listen}>
              Listen to the room
            </Button>
            <Button size="compact-md" onClick={work.checkAll} disabled={fittedOf(project).length === 0}>
              Check every channel
            </Button>
          </>
        )}
      </div>
      <div className="plot">
        <NoisePlot project={project} chosen={chosen} />
      </div>
      <ChannelList
        project={project}
        change={change}
        chosen={chosen}
        onChoose={setChosen}
        playing={work.playing}
        onCheck={work.checkOne}
        busy={busy !== null}
      />
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.15fr 1.2fr 1fr' }}>
        <LevelCard project={project} change={change} />
        <MicrophoneCard project={project} change={change} />
        <PracticeCard />
      </div>
    </div>
  );
}
