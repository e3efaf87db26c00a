import { Button } from '@mantine/core';
import { fittedOf, type PlaceProblem, type Project } from '@pebble-hall/core/project';
import { Note } from '../../parts/Note';
import { changeProject } from '../../services/changeProject';
import { theProcessor } from '../../services/theProcessor';
import { placeProblemWords } from '../../words/placeProblems';
import { readPlace } from './readPlace';

/** The plan read aloud: how large the place is, how it would ring, who sits where, what cannot be. */
export function PlanNotes({
  project,
  problems,
  lost,
}: {
  project: Project;
  problems: readonly PlaceProblem[];
  /** what is wrong with drawings that lie under the plan */
  lost: readonly string[];
}) {
  const { place, rig } = project;
  const lines = readPlace(place);
  const rehearse = () =>
    rig.kind === 'simulated'
      ? undefined
      : void changeProject('rehearsing on the simulated rig', (p) => ({
          ...p,
          rig: { ...p.rig, kind: 'simulated' },
        }));
  return (
    <section className="notes" aria-label="What the plan says">
      <h2>What the plan says</h2>
      {lines.map(({ text, small, attention }, i) => (
        <Note key={text} number={i + 1} attention={attention ?? false} small={small}>
          {text}
        </Note>
      ))}
      {problems.map((problem, i) => (
        <Note key={i} number={lines.length + i + 1} attention>
          {placeProblemWords(problem, place, theProcessor().profile.model)}
        </Note>
      ))}
      {lost.map((text, i) => (
        <Note key={text} number={lines.length + problems.length + i + 1} attention>
          {text}
        </Note>
      ))}
      {fittedOf(project).length > 0 ? (
        <div style={{ marginTop: 4 }}>
          <Button component="a" href="/rig" size="compact-md" onClick={rehearse}>
            Rehearse here
          </Button>
          <small className="quiet" style={{ display: 'block', marginTop: 4 }}>
            The simulated rig plays this place: its walls, loudspeakers, spots and processor.
          </small>
        </div>
      ) : null}
    </section>
  );
}
