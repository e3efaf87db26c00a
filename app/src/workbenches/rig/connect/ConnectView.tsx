import { loudspeakerById } from '@pebble-hall/core/project';
import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { playFrom } from '../../../services/channelSounds';
import { PlaceDrawing } from '../../../drawing';
import { InterfaceCard } from './InterfaceCard';
import { PatchList } from './PatchList';
import type { ViewProps } from '../viewProps';
import { RoundTripCard } from './RoundTripCard';
import { RoundTripPlot } from './RoundTripPlot';
import { TimeCard } from './TimeCard';

/** Which devices, which channel on which output, and how the time is known. */
export default function ConnectView({ project, change, guarded, busy }: ViewProps) {
  const [picture, setPicture] = useState<'plan' | 'round trip'>('plan');
  const [playing, setPlaying] = useState<string | null>(null);
  const play = async (id: string, what: 'name' | 'noise') => {
    const loudspeaker = loudspeakerById(project.place, id)!;
    const label =
      what === 'name' ? `Speaking the name of ${loudspeaker.name}` : `Soft noise from ${loudspeaker.name}`;
    setPlaying(id);
    await guarded.run(label, (signal) => playFrom(project, loudspeaker, what, signal));
    setPlaying(null);
  };
  const tools = (
    <SegmentedControl
      aria-label="Picture"
      size="xs"
      data={[
        { value: 'plan', label: 'Plan' },
        { value: 'round trip', label: 'Round trip' },
      ]}
      value={picture}
      onChange={(value) => setPicture(value as 'plan')}
    />
  );
  return (
    <div className="view" style={{ gridTemplateColumns: 'minmax(0, 1fr) 392px' }}>
      <div className="plot">
        {picture === 'plan' ? (
          <div style={{ position: 'absolute', inset: '8px 10px 4px' }}>
            <PlaceDrawing place={project.place} stateOf={() => 'empty'} playing={playing} />
            <div style={{ position: 'absolute', right: 0, top: 0 }}>{tools}</div>
          </div>
        ) : (
          <RoundTripPlot project={project} tools={tools} />
        )}
      </div>
      <PatchList
        project={project}
        change={change}
        busy={busy}
        playing={playing}
        onPlay={(id, what) => void play(id, what)}
      />
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.35fr 1fr 1fr' }}>
        <InterfaceCard project={project} change={change} busy={busy} />
        <TimeCard project={project} change={change} />
        <RoundTripCard
          project={project}
          change={change}
          guarded={guarded}
          busy={busy}
          onTaken={() => setPicture('round trip')}
        />
      </div>
    </div>
  );
}
