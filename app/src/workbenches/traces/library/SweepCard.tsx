import { lookOf, plainSweepLook, withLook, type Project, type Sweep } from '@pebble-hall/core/project';
import { changeProject } from '../../../services/changeProject';
import { sweepName } from '../../../services/libraryCurves';
import { LookFields } from './LookFields';
import { shapesIn, withShapes } from './shapeHandles';

interface Props {
  project: Project;
  sweep: Sweep;
  problem: string | null;
}

/** One sweep of the walk: how it is looked at here. What Correct and Hand over make of it stays as it was measured. */
export function SweepCard({ project, sweep, problem }: Props) {
  const { id } = sweep;
  return (
    <section aria-label="Chosen trace" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>{sweepName(project, sweep)}</h2>
      <LookFields
        project={project}
        look={lookOf(project, id) ?? plainSweepLook()}
        shapes={shapesIn(project, id)}
        isOfShapes={false}
        onLook={(label, change) => void changeProject(label, (p) => withLook(p, id, change))}
        onShapes={(shapes) => void changeProject('shapes of a trace', (p) => withShapes(p, id, shapes))}
      />
      {problem ? <span className="attention">{problem}</span> : null}
      <span className="quiet" style={{ fontSize: 12.5 }}>
        A sweep of the walk. How it is seen here changes nothing in Correct or Hand over.
      </span>
    </section>
  );
}
