/** Families of high- and low-passes, by how their poles lie. */
export const FILTER_FAMILIES = ['Butterworth', 'Bessel', 'Linkwitz-Riley'] as const;
export type FilterFamily = (typeof FILTER_FAMILIES)[number];

/** Gain of `gainDb` at `hz`, half of it in dB at either end of a bandwidth of hz / q. */
export interface PeakingShape {
  kind: 'peaking';
  hz: number;
  gainDb: number;
  q: number;
}

/** `gainDb` far below (low) or above (high), half of it in dB at `hz`; of first order without a q (null). */
export interface ShelfShape {
  kind: 'low shelf' | 'high shelf';
  hz: number;
  gainDb: number;
  order: 1 | 2;
  /** of its two poles; above 0.707 it undershoots */
  q: number | null;
}

/** -3.01 dB at `hz`; a Linkwitz-Riley filter has -6.02 dB there, and an even order. */
export interface PassShape {
  kind: 'high-pass' | 'low-pass';
  hz: number;
  family: FilterFamily;
  order: number;
}

/** Phase falls by 180 degrees around `hz` for each order; of first order without a q (null). */
export interface AllPassShape {
  kind: 'all-pass';
  hz: number;
  order: 1 | 2;
  q: number | null;
}

/** What a circuit does to a signal, in the figures that are printed beside its knobs. */
export type Shape = PeakingShape | ShelfShape | PassShape | AllPassShape;
export type ShapeKind = Shape['kind'];

export const SHAPE_KINDS: readonly ShapeKind[] = [
  'peaking',
  'low shelf',
  'high shelf',
  'high-pass',
  'low-pass',
  'all-pass',
];

/** The highest order of a high- or low-pass. */
export const MOST_ORDER = 12;

/** Quality of the poles of a shelf that is as steep as one without undershoot can be. */
export const STEEPEST_Q = Math.SQRT1_2;
