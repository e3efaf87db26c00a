import type { Project } from '@pebble-hall/core/project';
import { STAND_IN_DEVICE } from '../ports/device';

/** What the device on the bench is called: as somebody has named it, or else the stand-in's name where the rig is simulated. */
export const deviceName = ({ live, rig }: Pick<Project, 'live' | 'rig'>): string =>
  live.electronics.deviceName || (rig.kind === 'simulated' ? STAND_IN_DEVICE.name : 'Device');
