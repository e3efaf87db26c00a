import type { Shape, ShapeKind } from '@pebble-hall/core/shapes';

/** A shape to begin with, of a kind, at a frequency. */
export function startingShape(kind: ShapeKind, hz = 1000): Shape {
  switch (kind) {
    case 'peaking':
      return { kind, hz, gainDb: 6, q: 1 };
    case 'low shelf':
    case 'high shelf':
      return { kind, hz, gainDb: 6, order: 1, q: null };
    case 'high-pass':
    case 'low-pass':
      return { kind, hz, family: 'Butterworth', order: 2 };
    case 'all-pass':
      return { kind, hz, order: 2, q: 0.7 };
  }
}
