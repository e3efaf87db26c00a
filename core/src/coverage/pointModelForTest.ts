import type { RadiatingModel } from '../directivity/index.js';

/** For tests: alike in all directions, from far below hearing to far above it; 120 dB SPL at 1 m for a sine of full scale. */
export const POINT_MODEL: RadiatingModel = {
  name: 'Point',
  about: 'for tests',
  axis: {
    kind: 'filters',
    low: { frequency: 0.5, order: 1 },
    high: { frequency: 150_000, order: 1 },
    resonances: [],
  },
  radiation: {
    kind: 'ways',
    ways: [{ radiator: { kind: 'point' }, ahead: 0, left: 0, up: 0, gainDb: 0, filters: [] }],
  },
  largestDb: 120,
  sensitivityDb: 90,
};
