import type { ElectronicsBench } from '@pebble-hall/core/project';
import { changeLive } from '../changeLive';

/** Changes the bench of the open project, undoably. */
export const changeBench = (label: string, change: Partial<ElectronicsBench>): Promise<boolean> =>
  changeLive(label, (live) => ({ ...live, electronics: { ...live.electronics, ...change } }));
