import type { Guard } from '@pebble-hall/core/project';

/** Signals that the headroom guard keeps from clipping, as its choices and the report name them. */
export const GUARD_NAMES: Record<Guard, string> = {
  off: 'off',
  programme: 'programme',
  'full scale': 'any signal',
};
