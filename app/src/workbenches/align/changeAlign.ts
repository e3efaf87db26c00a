import { noted, withSource, type AlignSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';

/** Changes one step, undoably. */
export const changeStep = (label: string, id: string, change: (step: AlignStep) => AlignStep) =>
  changeProject(label, (p: Project) => ({
    ...p,
    alignSteps: noted(
      p.alignSteps,
      p.alignSteps.map((s) => (s.id === id ? change(s) : s)),
    ),
  }));

/** Changes one source of a step, undoably. */
export const changeSource = (
  label: string,
  stepId: string,
  sourceId: string,
  change: Partial<Omit<AlignSource, 'id'>>,
) => changeStep(label, stepId, (step) => withSource(step, sourceId, change));
