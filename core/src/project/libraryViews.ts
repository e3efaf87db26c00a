/** What can be drawn below the level of the library's traces, over the same frequencies. */
export const LIBRARY_PLOTS = [
  'Phase',
  'Group delay',
  'Coherence',
  'Difference',
  'Phase difference',
  'Spectrum',
  'Shapes',
] as const;
export type LibraryPlot = (typeof LIBRARY_PLOTS)[number];
/** Below the level, so many at once. */
export const MOST_LOWER_PLOTS = 3;
export const SMOOTHINGS = [1, 3, 6, 12, 24, 48] as const;
export type Smoothing = (typeof SMOOTHINGS)[number];

/** How the plots of the library are looked at. */
export interface LibraryLook {
  /** below the level, from top to bottom */
  plots: LibraryPlot[];
  /** octave fraction */
  smoothing: Smoothing;
  /** whether traces fade where their coherence falls */
  fades: boolean;
  /** of the plots, Hz */
  fromHz: number;
  toHz: number;
  /** what differences are taken against; null for nothing */
  againstId: string | null;
  /** a trace that others should follow, and how far they may lie from it, dB; null for none */
  target: { traceId: string; toleranceDb: number } | null;
  /** a band that is marked on all plots, Hz; null for none */
  marked: { from: number; to: number } | null;
  /** sweeps of the walk and references that are shown; kept traces tell it themselves */
  shownIds: string[];
}

export const plainLook = (): LibraryLook => ({
  plots: ['Phase'],
  smoothing: 12,
  fades: true,
  fromHz: 20,
  toHz: 20_000,
  againstId: null,
  target: null,
  marked: null,
  shownIds: [],
});

/** A way to look at the library that was kept under a name: with it come back the kept traces that were shown. */
export interface KeptLook {
  id: string;
  name: string;
  look: LibraryLook;
  /** of kept traces */
  keptIds: string[];
}
