import type { LiveRecord } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';

/** Changes how the session of the open project is set up, undoably. */
export const changeLive = (label: string, change: (live: LiveRecord) => LiveRecord): Promise<boolean> =>
  changeProject(label, (p) => ({ ...p, live: change(p.live) }));
