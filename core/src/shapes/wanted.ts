import { MOST_ORDER, STEEPEST_Q, type FilterFamily, type Shape } from './shape.js';

/** What is looked for in a curve; null for whichever fits best. */
export type WantedShape =
  | { kind: 'peaking' }
  | { kind: 'low shelf' | 'high shelf'; order: 1 | 2 | null; undershoots: boolean }
  | { kind: 'high-pass' | 'low-pass'; family: FilterFamily | null; order: number | null }
  | { kind: 'all-pass'; order: 1 | 2 | null };

/** A kind of shape with everything but its figures decided: what can be refined continuously. */
export interface Candidate {
  /** the shape for figures as they come */
  make: (hz: number, gainDb: number, q: number) => Shape;
  hasGain: boolean;
  /** null where it has none */
  q: { least: number; most: number; starts: number[] } | null;
}

const PEAKING_Q = { least: 0.1, most: 60, starts: [0.5, 0.7, 1, 1.4, 2, 3, 5, 8, 14] };
const SHELF_Q = { least: 0.25, most: STEEPEST_Q, starts: [0.45, 0.65] };
const UNDERSHOOT_Q = { least: 0.25, most: 4, starts: [0.5, 0.71, 1, 1.5] };
const ALL_PASS_Q = { least: 0.15, most: 40, starts: [0.4, 0.7, 1.2, 2, 4, 8] };

const PASSES: Record<FilterFamily, number[]> = {
  Butterworth: Array.from({ length: 8 }, (_, i) => i + 1),
  // of first order they are the same
  Bessel: Array.from({ length: 7 }, (_, i) => i + 2),
  'Linkwitz-Riley': [2, 4, 6, 8],
};

/** Everything that a wish leaves open, one candidate for each. */
export function candidatesOf(wanted: WantedShape): Candidate[] {
  switch (wanted.kind) {
    case 'peaking':
      return [{ hasGain: true, q: PEAKING_Q, make: (hz, gainDb, q) => ({ kind: 'peaking', hz, gainDb, q }) }];
    case 'low shelf':
    case 'high shelf': {
      const { kind, order, undershoots } = wanted;
      return orders(order).map((o) =>
        o === 1
          ? { hasGain: true, q: null, make: (hz, gainDb) => ({ kind, hz, gainDb, order: 1, q: null }) }
          : {
              hasGain: true,
              q: undershoots ? UNDERSHOOT_Q : SHELF_Q,
              make: (hz, gainDb, q) => ({ kind, hz, gainDb, order: 2, q }),
            },
      );
    }
    case 'high-pass':
    case 'low-pass': {
      const { kind } = wanted;
      return passes(wanted).map(({ family, order }) => ({
        hasGain: false,
        q: null,
        make: (hz) => ({ kind, hz, family, order }),
      }));
    }
    case 'all-pass':
      return orders(wanted.order).map((o) =>
        o === 1
          ? { hasGain: false, q: null, make: (hz) => ({ kind: 'all-pass', hz, order: 1, q: null }) }
          : {
              hasGain: false,
              q: ALL_PASS_Q,
              make: (hz, _, q) => ({ kind: 'all-pass', hz, order: 2, q }),
            },
      );
  }
}

const orders = (order: 1 | 2 | null): (1 | 2)[] => (order === null ? [1, 2] : [order]);

function passes({ family, order }: { family: FilterFamily | null; order: number | null }) {
  const families = family ? [family] : (Object.keys(PASSES) as FilterFamily[]);
  const found = families.flatMap((f) => {
    if (order === null) return PASSES[f].map((o) => ({ family: f, order: o }));
    return order >= 1 && order <= MOST_ORDER && (f !== 'Linkwitz-Riley' || order % 2 === 0)
      ? [{ family: f, order }]
      : [];
  });
  if (found.length === 0) throw new RangeError(`shape: no ${family ?? 'family'} of order ${order}`);
  return found;
}
