import { type Project, fittedOf } from '@pebble-hall/core/project';
import { traceColour } from '../../charts/traceColours';

export const colourOf = (project: Project, loudspeakerId: string): string => {
  const index = fittedOf(project).findIndex((l) => l.id === loudspeakerId);
  return traceColour(Math.max(0, index));
};
