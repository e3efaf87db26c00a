import { SegmentedControl } from '@mantine/core';
import type { Calibration } from '@pebble-hall/core/project';
import { useState } from 'react';
import { microphoneOf } from '../../../services/theRig';
import { CalibrationFiles } from './CalibrationFiles';
import { CalibrationPlot } from './CalibrationPlot';
import { MicrophoneList } from './MicrophoneList';
import { NewFilesCard } from './NewFilesCard';
import type { ViewProps } from '../viewProps';
import { WithAndWithoutPlot } from './WithAndWithoutPlot';

/** Which microphone, how it points, and which file corrects it. */
export default function MicrophonesView({ project, change, busy }: ViewProps) {
  const [picture, setPicture] = useState<'files' | 'with and without'>('files');
  const [candidates, setCandidates] = useState<Calibration[]>([]);
  const microphone = microphoneOf(project);
  const tools = (
    <SegmentedControl
      aria-label="Picture"
      size="xs"
      data={[
        { value: 'files', label: 'Files' },
        { value: 'with and without', label: 'With and without' },
      ]}
      value={candidates.length > 0 ? 'files' : picture}
      onChange={(value) => setPicture(value as 'files')}
    />
  );
  return (
    <div className="view" style={{ gridTemplateColumns: 'minmax(0, 1fr) 392px' }}>
      <div className="plot">
        {picture === 'files' || candidates.length > 0 ? (
          <CalibrationPlot project={project} microphone={microphone} candidates={candidates} tools={tools} />
        ) : (
          <WithAndWithoutPlot project={project} microphone={microphone} tools={tools} />
        )}
      </div>
      <MicrophoneList project={project} change={change} busy={busy} />
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.1fr 1fr' }}>
        <CalibrationFiles project={project} microphone={microphone} change={change} />
        <NewFilesCard
          project={project}
          microphone={microphone}
          change={change}
          candidates={candidates}
          onCandidates={setCandidates}
        />
      </div>
    </div>
  );
}
