import type { Project } from '@pebble-hall/core/project';
import type { Change } from '../../services/changeProject';
import type { Guarded } from './useGuarded';

/** What every part of the rig is given. */
export interface ViewProps {
  project: Project;
  change: Change;
  guarded: Guarded;
  busy: boolean;
}
