import { Button, Modal, SegmentedControl, TextInput } from '@mantine/core';
import type { Loudspeaker, OwnModel, Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import type { Candidate } from './candidate';
import { FileStep } from './FileStep';
import { GuessStep } from './GuessStep';
import { keepModel, nameProblem } from './ownModels';
import { RadiationPlots } from './RadiationPlots';
import { TracesStep } from './TracesStep';

interface OwnModelDialogProps {
  project: Project;
  loudspeaker: Loudspeaker;
  onClose: () => void;
}

/** Until somebody says how loud it gets. */
const ASSUMED = { sensitivityDb: 90, largestDb: 120 };
const WAYS = [
  { value: 'file', label: 'From a file' },
  { value: 'traces', label: 'From measured traces' },
  { value: 'guess', label: 'A guess' },
] as const;

/** A loudspeaker model of one's own: read, measured or guessed; looked at before it is kept. */
export function OwnModelDialog({ project, loudspeaker, onClose }: OwnModelDialogProps) {
  const [way, setWay] = useState<(typeof WAYS)[number]['value']>('file');
  const [candidate, setCandidate] = useState<Candidate | null>(null);
  const [typed, setTyped] = useState<Partial<Pick<OwnModel, 'name' | 'sensitivityDb' | 'largestDb'>>>({});
  const take = (next: Candidate | null) => {
    setCandidate(next);
    setTyped({});
  };
  return (
    <Modal opened onClose={onClose} title="A loudspeaker model of your own" size={1040} centered>
      <div style={{ display: 'grid', gap: 12 }}>
        <SegmentedControl
          aria-label="Where it comes from"
          size="xs"
          style={{ justifySelf: 'start' }}
          data={WAYS.map((w) => ({ ...w }))}
          value={way}
          onChange={(v) => {
            setWay(v as typeof way);
            take(null);
          }}
        />
        {way === 'file' ? (
          <FileStep project={project} onCandidate={take} />
        ) : way === 'traces' ? (
          <TracesStep project={project} loudspeaker={loudspeaker} onCandidate={take} />
        ) : (
          <GuessStep project={project} loudspeaker={loudspeaker} onCandidate={setCandidate} />
        )}
        {candidate ? (
          <Kept
            candidate={candidate}
            typed={typed}
            onTyped={(more) => setTyped({ ...typed, ...more })}
            project={project}
            loudspeaker={loudspeaker}
            onClose={onClose}
          />
        ) : null}
      </div>
    </Modal>
  );
}

/** What was understood, how it is called, how loud it gets; and the plots of it. */
function Kept({
  candidate,
  typed,
  onTyped,
  project,
  loudspeaker,
  onClose,
}: OwnModelDialogProps & {
  candidate: Candidate;
  typed: Partial<Pick<OwnModel, 'name' | 'sensitivityDb' | 'largestDb'>>;
  onTyped: (more: typeof typed) => void;
}) {
  const { place } = project;
  const name = typed.name ?? candidate.name;
  const sensitivityDb = typed.sensitivityDb ?? candidate.sensitivityDb ?? ASSUMED.sensitivityDb;
  const largestDb = typed.largestDb ?? candidate.largestDb ?? ASSUMED.largestDb;
  const isAssumed =
    (candidate.sensitivityDb === null && typed.sensitivityDb === undefined) ||
    (candidate.largestDb === null && typed.largestDb === undefined);
  const wrong = nameProblem(place, name);
  const keep = async () => {
    const { source } = candidate;
    const fileId = crypto.randomUUID();
    const own: OwnModel = {
      id: crypto.randomUUID(),
      name: name.trim(),
      role: loudspeaker.role,
      sensitivityDb,
      largestDb,
      source: source.kind === 'guess' ? source : { kind: source.kind, fileId },
    };
    const file = source.kind === 'guess' ? null : { ...source.file, id: fileId };
    if (await keepModel(own, file, loudspeaker.id)) onClose();
  };
  return (
    <>
      <ul aria-label="What was understood" style={{ margin: 0, paddingLeft: 18, display: 'grid', gap: 3 }}>
        <li>{candidate.about}.</li>
        {candidate.notes.map((note) => (
          <li key={note} style={{ color: 'var(--buoy)' }}>
            {note}
          </li>
        ))}
        {isAssumed ? (
          <li style={{ color: 'var(--buoy)' }}>
            How loud it gets is not known: {sensitivityDb} and {largestDb} dB are assumed until you type them.
          </li>
        ) : null}
      </ul>
      <RadiationPlots
        view={candidate.view}
        axisByDb={largestDb - candidate.viewLargestDb}
        largestDb={largestDb}
      />
      <div className="row" style={{ gap: 12, alignItems: 'end' }}>
        <TextInput
          label="Name"
          aria-label="Name"
          size="xs"
          w={220}
          maxLength={60}
          value={name}
          error={wrong}
          onChange={(e) => onTyped({ name: e.currentTarget.value })}
        />
        <Levels
          label="Sensitivity, 2.83 V at 1 m"
          value={sensitivityDb}
          onChange={(v) => onTyped({ sensitivityDb: v })}
        />
        <Levels label="Largest level at 1 m" value={largestDb} onChange={(v) => onTyped({ largestDb: v })} />
        <span style={{ flex: 1 }} />
        <Button disabled={wrong !== null} onClick={() => void keep()}>
          Keep it for {loudspeaker.name}
        </Button>
      </div>
    </>
  );
}

const Levels = ({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (v: number) => void;
}) => (
  <label style={{ display: 'grid', gap: 2, fontSize: 12 }}>
    {label}
    <NumberField
      label={label}
      value={value}
      unit="dB"
      min={40}
      max={200}
      step={1}
      width={110}
      onChange={onChange}
    />
  </label>
);
