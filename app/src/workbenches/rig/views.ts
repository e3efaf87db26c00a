import { type Project, fittedOf } from '@pebble-hall/core/project';
import { levelOf, microphoneOf } from '../../services/theRig';

/** The parts of the Rig, in the order in which one does them; any can be left for another at any time. */
export const VIEWS = ['Connect', 'Microphones', 'Level', 'Channels', 'Distances'] as const;
export type View = (typeof VIEWS)[number];

/** What each part has come to, in a word or two. */
export function evidenceOf(project: Project, view: View): string {
  const { rig } = project;
  switch (view) {
    case 'Connect':
      return rig.kind === 'simulated' ? 'simulated' : rig.device ? 'real devices' : 'choose devices';
    case 'Microphones':
      return microphoneOf(project).calibrationId ? 'with file' : 'no file';
    case 'Level': {
      const level = levelOf(project);
      return level ? (level.stale ? 'calibrate again' : 'calibrated') : 'relative dB';
    }
    case 'Channels':
      return `${fittedOf(project).filter((l) => rig.checks[l.id]).length} of ${fittedOf(project).length} checked`;
    case 'Distances': {
      const known = rig.distances.filter((d) => d.adjustedM ?? d.typedM ?? d.heardM).length;
      return known === 0 ? 'from the plan' : `${known} known`;
    }
  }
}
