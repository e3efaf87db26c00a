import { CloseButton, Progress } from '@mantine/core';
import { useStore } from 'zustand';
import { longJobs } from '../services/jobs';

/** Long computations under way, whichever workbench began them. */
export function JobPills() {
  const jobs = useStore(longJobs, (state) => state.underWay);
  return jobs.map(({ id, what, share, cancel }) => (
    <span key={id} className="pill" role="status" aria-label={what} style={{ display: 'flex', gap: 6 }}>
      {what} <span className="mono">{Math.round(100 * share)} %</span>
      <Progress value={100 * share} w={40} size="xs" aria-label={`${what}: progress`} />
      <CloseButton size="xs" aria-label={`Cancel: ${what}`} onClick={cancel} />
    </span>
  ));
}
