import { Button } from '@mantine/core';
import { staleSteps, type Correction, type Project, type Step } from '@pebble-hall/core/project';
import { useMemo, useState } from 'react';
import { notifyProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import type { Edit } from '../useCorrection';
import { takeStaleAgain } from './takeSteps';

const NAMES: Record<Step, string> = {
  subs: 'the evening out of the seats',
  levels: 'levels and delays',
  crossover: 'the crossover alignment',
};

/** Steps that rest on something that has changed since they were taken, with one press to take them again. */
export function StaleNotice({
  project,
  correction,
  onEdit,
}: {
  project: Project;
  correction: Correction;
  onEdit: Edit;
}) {
  const [work, setWork] = useState(false);
  const stale = useMemo(() => staleSteps(project, correction), [project, correction]);
  if (stale.length === 0) return null;
  const names = stale.map((step) => NAMES[step]).join(' and ');
  const redo = async () => {
    setWork(true);
    await takeStaleAgain(onEdit).catch((error: unknown) => notifyProblem(sentenceOf(error)));
    setWork(false);
  };
  return (
    <div className="row attention" role="status" aria-label="Out of date">
      <span>Something has changed since: {names} no longer fit.</span>
      <Button size="compact-xs" style={{ flexShrink: 0 }} loading={work} onClick={() => void redo()}>
        Update
      </Button>
    </div>
  );
}
