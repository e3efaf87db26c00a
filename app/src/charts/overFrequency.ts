/** What is drawn of a transfer function below its level, each with its axis. */
export const BELOW_LEVEL = {
  Phase: { unit: 'deg', range: { lowDb: -180, highDb: 180 }, ticks: [-180, -90, 0, 90, 180] },
  'Group delay': { unit: 'ms', range: { lowDb: -10, highDb: 30 }, ticks: [-10, 0, 10, 20, 30] },
  Coherence: { unit: '0 to 1', range: { lowDb: 0, highDb: 1 }, ticks: [0, 0.25, 0.5, 0.75, 1] },
} as const satisfies Record<
  string,
  { unit: string; range: { lowDb: number; highDb: number }; ticks: number[] }
>;
export type BelowLevel = keyof typeof BELOW_LEVEL;

/** Half a turn and a little, degrees: there a wrapped phase begins anew. */
export const WRAPS_DEG = 200;
