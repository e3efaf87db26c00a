import { Select } from '@mantine/core';
import { GUESS_KINDS, guessLoudspeaker, type Guess } from '@pebble-hall/core/loudspeakers';
import type { Loudspeaker, OwnModel, Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useEffect, useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import type { Candidate } from './candidate';

interface GuessStepProps {
  project: Project;
  loudspeaker: Loudspeaker;
  onCandidate: (candidate: Candidate | null) => void;
}

const work = async (
  { guess, speed }: { guess: Guess; speed: number },
  { signal }: { signal: AbortSignal },
): Promise<Candidate> => {
  const { sensitivityDb, largestDb } = guessLoudspeaker(guess);
  const source: Candidate['source'] = { kind: 'guess', guess };
  const name = `${guess.kind.charAt(0).toUpperCase()}${guess.kind.slice(1)} of ${guess.coneIn} in, a guess`;
  const model: OwnModel = { id: '', role: 'full range', name, sensitivityDb, largestDb, source };
  const { view, about } = await runJob('coverage.radiation', { model, speed }, { signal });
  const notes = ['Sensitivity and largest level are guessed from the size of the cone.'];
  return { source, name, about, sensitivityDb, largestDb, notes, view, viewLargestDb: largestDb };
};

/** A model by what one sees of it. */
export function GuessStep({ project, loudspeaker, onCandidate }: GuessStepProps) {
  const [guess, setGuess] = useState<Guess>({
    kind: loudspeaker.role === 'subwoofer' ? 'subwoofer' : 'cone and horn',
    coneIn: loudspeaker.role === 'subwoofer' ? 18 : 12,
    widthM: 0.4,
    heightM: 0.6,
  });
  const set = (more: Partial<Guess>) => setGuess({ ...guess, ...more });
  const { value, problem } = useDerived({ guess, speed: speedOfSound(project.place.temperatureC) }, work);
  useEffect(() => onCandidate(value), [value, onCandidate]);
  const size = (label: string, key: 'widthM' | 'heightM', most: number) => (
    <label style={{ display: 'grid', gap: 2, fontSize: 12 }}>
      {label}
      <NumberField
        label={label}
        value={100 * guess[key]}
        unit="cm"
        min={2}
        max={most}
        step={1}
        digits={0}
        width={90}
        onChange={(v) => set({ [key]: v / 100 })}
      />
    </label>
  );
  return (
    <>
      <div className="row" style={{ justifyContent: 'start', alignItems: 'end', gap: 12 }}>
        <Select
          label="Kind"
          aria-label="Kind"
          size="xs"
          w={150}
          allowDeselect={false}
          data={[...GUESS_KINDS]}
          value={guess.kind}
          onChange={(kind) => kind && set({ kind: kind as Guess['kind'] })}
        />
        <label style={{ display: 'grid', gap: 2, fontSize: 12 }}>
          Largest cone
          <NumberField
            label="Largest cone"
            value={guess.coneIn}
            unit="in"
            min={1}
            max={30}
            step={1}
            width={90}
            onChange={(coneIn) => set({ coneIn })}
          />
        </label>
        {size('Width of its front', 'widthM', 500)}
        {size('Height of its front', 'heightM', 1000)}
      </div>
      {problem ? <p role="alert">{problem}</p> : null}
    </>
  );
}
