import type { ExactChannel } from '@pebble-hall/core/correct';
import { traceRef } from '@pebble-hall/core/jobs';
import { sweepOf, type Calibration, type Project, type Sweep } from '@pebble-hall/core/project';
import type { BeforeAfter } from '@pebble-hall/core/views';
import { runJob } from '../../../services/jobs';
import type { Job } from '../../../services/derivation';
import { theProcessor } from '../../../services/theProcessor';
import { useDerived } from '../../../services/useDerived';

export interface BeforeAfterState {
  /** null until it is worked out; never of an earlier filter */
  data: BeforeAfter | null;
  problem: string | null;
}

interface Asked {
  channel: string;
  spot: string;
  sweep: Sweep | null;
  calibrations: Record<string, Calibration>;
  exact: ExactChannel;
}

const read = async ({ channel, spot, sweep, calibrations, exact }: Asked, { signal }: Job) => {
  if (!sweep) throw new Error(`there is no sweep of ${channel} at ${spot} yet.`);
  const source = traceRef(sweep, calibrations);
  const { fir, sections } = exact;
  const { rate } = theProcessor().profile;
  return runJob('design.beforeAfter', { source, fir, sections, rate }, { signal });
};

/** What the filter of a channel does at the home spot in phase and time. `exact` null: nothing is asked for. */
export function useBeforeAfter(
  project: Project,
  channel: { id: string; name: string } | null,
  exact: ExactChannel | null,
): BeforeAfterState {
  const home = project.place.spots[0]!;
  const { value, problem } = useDerived(
    exact && channel
      ? {
          channel: channel.name,
          spot: home.name,
          sweep: sweepOf(project, home.id, channel.id) ?? null,
          calibrations: project.calibrations,
          exact,
        }
      : null,
    read,
  );
  return { data: value, problem };
}
