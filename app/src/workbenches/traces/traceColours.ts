import { type Project, fittedOf } from '@pebble-hall/core/project';

/** One for each channel, in the order of the plan. */
export const TRACE_COLOURS = [
  'trace-mussel',
  'trace-buoy',
  'trace-kelp',
  'trace-heather',
  'trace-gorse',
  'trace-campion',
  'trace-moss',
  'trace-slate',
] as const;

export const colourOf = (project: Project, loudspeakerId: string): string => {
  const index = fittedOf(project).findIndex((l) => l.id === loudspeakerId);
  return TRACE_COLOURS[Math.max(0, index) % TRACE_COLOURS.length]!;
};
