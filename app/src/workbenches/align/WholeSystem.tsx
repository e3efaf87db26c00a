import { Button } from '@mantine/core';
import { noted, systemSteps, type GroupRole, type Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { lengthText } from '../../drawing';
import { PatternDialog } from '../../parts/pattern/PatternDialog';
import { changeProject } from '../../services/changeProject';
import { groupsOfPlan } from './sourceChoices';

interface Props {
  project: Project;
  /** @param id of the first step that was made */
  onMade: (id: string) => void;
}

const WHAT: Record<GroupRole, string> = {
  mains: 'the time reference of all',
  subwoofers: 'to the mains, where both share their band',
  fills: 'to all before, where both are equally loud',
  'delay line': 'to all before, once it is there',
};

/** All that is drawn in the plan, in the order in which it is brought together; the steps are made at once. */
export function WholeSystem({ project, onMade }: Props) {
  const groups = groupsOfPlan(project);
  const [lookedId, setLooked] = useState<string | null>(null);
  const looked = project.place.loudspeakers.find((l) => l.id === lookedId);
  if (groups.length < 2) return null;
  const make = () => {
    const steps = systemSteps(groups, () => crypto.randomUUID());
    void changeProject('steps for the whole system', (p) => ({
      ...p,
      alignSteps: noted(p.alignSteps, [...p.alignSteps, ...steps]),
    })).then((done) => done && onMade(steps[0]!.id));
  };
  return (
    <section
      className="card"
      aria-label="The whole system"
      style={{ width: 430, gap: 10, padding: '18px 22px' }}
    >
      <h2>The whole system, in order</h2>
      <span className="quiet">
        What the plan holds, mains first, each group against everything before it. By the models over all
        seats, until it is measured.
      </span>
      <ol style={{ margin: 0, paddingLeft: 20, display: 'grid', gap: 6 }}>
        {groups.map((g) => (
          <li key={g.name}>
            <b>{g.name}</b>
            <br />
            <small className="quiet">
              {g.role === 'mains' ? '' : `${whereWords(g.aheadM, project.place.lengthUnit)}; `}
              {WHAT[g.role]}
            </small>
            {g.loudspeakers
              .filter((l) => l.group?.kind === 'gradient' || l.group?.kind === 'end-fire')
              .map((l) => (
                <div key={l.id}>
                  <small>
                    {l.name}, {l.group?.kind === 'gradient' ? 'a gradient pair' : 'end-fire'}: by itself
                    first.{' '}
                  </small>
                  <Button size="compact-xs" variant="default" onClick={() => setLooked(l.id)}>
                    Pattern of {l.name}
                  </Button>
                </div>
              ))}
          </li>
        ))}
      </ol>
      <Button variant="default" onClick={make}>
        Make {groups.length === 2 ? 'this step' : `these ${groups.length - 1} steps`}
      </Button>
      {looked ? (
        <PatternDialog
          project={project}
          loudspeaker={looked}
          onGroup={(group) =>
            void changeProject(`group of ${looked.name}`, (p) => ({
              ...p,
              place: {
                ...p.place,
                loudspeakers: p.place.loudspeakers.map((l) => (l.id === looked.id ? { ...l, group } : l)),
              },
            }))
          }
          onClose={() => setLooked(null)}
        />
      ) : null}
    </section>
  );
}

function whereWords(aheadM: number, unit: 'm' | 'ft'): string {
  if (Math.abs(aheadM) < 0.1) return 'beside the mains';
  return `${lengthText(Math.abs(aheadM), unit, 1)} ${aheadM > 0 ? 'ahead of' : 'behind'} the mains`;
}
