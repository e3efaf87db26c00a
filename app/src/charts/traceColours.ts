/** Names of `look.css`, in the order in which traces get them. */
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

export const traceColour = (index: number): string =>
  TRACE_COLOURS[((index % TRACE_COLOURS.length) + TRACE_COLOURS.length) % TRACE_COLOURS.length]!;
