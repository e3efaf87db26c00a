import { SegmentedControl } from '@mantine/core';
import { shapeVolume } from '@pebble-hall/core/place';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { ArrivalsView } from './ArrivalsView';
import { RingView } from './RingView';

const QUESTIONS = ['How long does it ring?', 'What arrives, and where from?'] as const;

/** What will this room do, and why can one believe it? */
export default function RoomModelWorkbench({ project }: { project: Project }) {
  const { shape } = project.place;
  const [question, setQuestion] = useState<(typeof QUESTIONS)[number]>(QUESTIONS[0]);
  if (!shape.isEnclosed || !(shapeVolume(shape) > 0))
    return (
      <div className="shed">
        <h1>No room yet</h1>
        <p>
          {shape.isEnclosed
            ? 'What is drawn has no volume. Draw its walls and its ceiling in '
            : 'In the open nothing rings. A room is drawn in '}
          <a className="linkish" href="/plan">
            Plan
          </a>
          .
        </p>
      </div>
    );
  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 300px',
        gridTemplateRows: '34px minmax(0, 1fr) auto',
        height: '100%',
      }}
    >
      <div className="chips" style={{ gridColumn: '1 / 3' }}>
        <SegmentedControl
          size="xs"
          aria-label="What is asked"
          data={[...QUESTIONS]}
          value={question}
          onChange={setQuestion}
        />
      </div>
      {question === QUESTIONS[0] ? <RingView project={project} /> : <ArrivalsView project={project} />}
    </div>
  );
}
