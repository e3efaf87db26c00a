import { Button, NativeSelect } from '@mantine/core';
import { freeName, newStep, noted, type Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { changeProject } from '../../services/changeProject';
import { WholeSystem } from './WholeSystem';
import { chosenSource, likelyPair, listed, sourceChoices } from './sourceChoices';

interface Props {
  project: Project;
  onMade: (id: string) => void;
  /** absent where there is nothing to go back to */
  onCancel?: (() => void) | undefined;
}

/** Two sources, and what they are together: a step of the alignment. */
export function NewStep({ project, onMade, onCancel }: Props) {
  const choices = sourceChoices(project, null);
  const likely = likelyPair(project);
  const [first, setFirst] = useState(likely?.[0] ?? '');
  const [second, setSecond] = useState(likely?.[1] ?? '');
  const sources = [first, second].map((value) => (value ? chosenSource(project, value) : null));
  const [one, other] = sources;
  const ask = [{ value: '', label: 'choose …' }, ...listed(choices)];
  return (
    <div style={{ display: 'flex', gap: 18, justifyContent: 'center', alignItems: 'start', paddingTop: 30 }}>
      <section className="card" aria-label="A new step" style={{ width: 540, gap: 12, padding: '18px 22px' }}>
        <h2>What is to be brought together?</h2>
        <span className="quiet">
          Two sources that share a band: a main and its subwoofer, a fill and the mains, a delay line and what
          it follows. The first stands still; the other is moved until they add up. More can join them later.
        </span>
        <b>Stands still: the time reference</b>
        <NativeSelect
          aria-label="Stands still"
          data={ask}
          value={first}
          onChange={(e) => setFirst(e.currentTarget.value)}
        />
        <b>Is brought to it</b>
        <NativeSelect
          aria-label="Is brought to it"
          data={ask}
          value={second}
          onChange={(e) => setSecond(e.currentTarget.value)}
        />
        <div className="row" style={{ justifyContent: 'flex-start' }}>
          <Button
            disabled={!one || !other || first === second}
            onClick={() => {
              if (!one || !other) return;
              const id = crypto.randomUUID();
              const name = freeName(
                `${one.name} with ${other.name}`.slice(0, 120),
                project.alignSteps.map((s) => s.name),
              );
              const step = newStep(id, name, [one, other]);
              void changeProject(`${name}: a new step`, (p) => ({
                ...p,
                alignSteps: noted(p.alignSteps, [...p.alignSteps, step]),
              })).then((done) => done && onMade(id));
            }}
          >
            Bring them together
          </Button>
          {onCancel ? (
            <Button variant="default" onClick={onCancel}>
              Cancel
            </Button>
          ) : null}
        </div>
        {choices.every((c) => c.group.startsWith('Loudspeakers')) ? (
          <span className="quiet">
            Nothing was measured yet: with distances alone, what is found is an estimate. Sweeps come from Mic
            walk, traces from Live and from files in Traces.
          </span>
        ) : null}
      </section>
      <WholeSystem project={project} onMade={onMade} />
    </div>
  );
}
