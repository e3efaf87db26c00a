import { Button } from '@mantine/core';
import { useState } from 'react';
import { fittedOf } from '@pebble-hall/core/project';
import { ChannelList } from './ChannelList';
import { LevelCard } from './LevelCard';
import { NoiseCard } from './NoiseCard';
import { NoisePlot } from './NoisePlot';
import { ProcessorCard } from '../connect/ProcessorCard';
import type { ViewProps } from '../viewProps';
import { useRigWork } from '../useRigWork';

/** Is each channel there, the one it claims to be, the right way round, and loud enough? */
export default function ChannelsView({ project, change, guarded, busy }: ViewProps) {
  const [chosen, setChosen] = useState<string | null>(null);
  const work = useRigWork(project, change, guarded);
  return (
    <div className="view" style={{ gridTemplateColumns: 'minmax(0, 1fr) 392px' }}>
      <div className="plot">
        <NoisePlot project={project} chosen={chosen} />
      </div>
      <div style={{ display: 'flex', flexDirection: 'column', gap: 8, minHeight: 0 }}>
        <div style={{ display: 'flex', gap: 8 }}>
          <Button
            size="compact-md"
            style={{ flex: 1 }}
            onClick={work.checkAll}
            disabled={busy || fittedOf(project).length === 0}
          >
            Check every channel
          </Button>
          <Button size="compact-md" variant="default" onClick={work.listen} disabled={busy}>
            Listen to the room
          </Button>
        </div>
        <ChannelList
          project={project}
          change={change}
          chosen={chosen}
          onChoose={setChosen}
          playing={work.playing}
          onCheck={work.checkOne}
          guarded={guarded}
          busy={busy}
        />
      </div>
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.15fr 1fr 1.2fr' }}>
        <LevelCard project={project} change={change} />
        <NoiseCard project={project} />
        <ProcessorCard project={project} change={change} busy={busy} />
      </div>
    </div>
  );
}
