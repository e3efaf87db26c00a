import { SegmentedControl } from '@mantine/core';
import { roomVolume } from '@pebble-hall/core/place';
import type { Project } from '@pebble-hall/core/project';
import { isOneOf, useKept } from '../../services/useKept';
import { ArrivalsView } from './ArrivalsView';
import { EchoView } from './EchoView';
import { RingView } from './RingView';
import { RunBar } from './RunBar';
import { SoundView } from './SoundView';
import { TrustView } from './TrustView';
import { VoiceView } from './VoiceView';
import { useRuns, type Runs } from './useRuns';

const QUESTIONS = [
  'How long does it ring?',
  'What arrives?',
  'How does it sound?',
  'Does it echo?',
  'Is the voice first?',
  'Can it be believed?',
] as const;
type Question = (typeof QUESTIONS)[number];

/** What will this room do, and why can one believe it? */
export default function RoomModelWorkbench({ project }: { project: Project }) {
  const { shape } = project.place;
  const [question, setQuestion] = useKept<Question>('room-model question', QUESTIONS[0], isOneOf(QUESTIONS));
  const runs = useRuns(project);
  if (!(roomVolume(project.place) > 0))
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
          onChange={(v) => setQuestion(v as Question)}
        />
        <RunBar project={project} runs={runs} onNew={() => setQuestion('How does it sound?')} />
      </div>
      <Asked question={question} project={project} runs={runs} />
    </div>
  );
}

function Asked({ question, project, runs }: { question: Question; project: Project; runs: Runs }) {
  switch (question) {
    case 'How long does it ring?':
      return <RingView project={project} runs={runs} />;
    case 'What arrives?':
      return <ArrivalsView project={project} />;
    case 'How does it sound?':
      return <SoundView project={project} runs={runs} />;
    case 'Does it echo?':
      return <EchoView project={project} runs={runs} />;
    case 'Is the voice first?':
      return <VoiceView project={project} runs={runs} />;
    case 'Can it be believed?':
      return <TrustView project={project} runs={runs} />;
  }
}
