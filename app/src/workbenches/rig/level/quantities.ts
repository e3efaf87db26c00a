import { WEIGHTINGS, type SoundLevelMeter, type Weighting } from '@pebble-hall/core/level';

/** Something that a meter shows. */
export interface Quantity {
  id: string;
  /** as the standard writes it */
  symbol: string;
  words: string;
  read: (meter: SoundLevelMeter, leqS: number) => number;
}

const of = (w: Weighting): Quantity[] => [
  { id: `${w}F`, symbol: `L${w}F`, words: `${w}, Fast`, read: (m) => m.read(w).fastDb },
  { id: `${w}S`, symbol: `L${w}S`, words: `${w}, Slow`, read: (m) => m.read(w).slowDb },
  { id: `${w}eq`, symbol: `L${w}eq`, words: `${w}, equivalent`, read: (m, leqS) => m.leqDb(w, leqS) },
  { id: `${w}Fmax`, symbol: `L${w}Fmax`, words: `${w}, Fast, largest`, read: (m) => m.read(w).maxDb.Fast },
  { id: `${w}Fmin`, symbol: `L${w}Fmin`, words: `${w}, Fast, smallest`, read: (m) => m.read(w).minDb.Fast },
  { id: `${w}Smax`, symbol: `L${w}Smax`, words: `${w}, Slow, largest`, read: (m) => m.read(w).maxDb.Slow },
  { id: `${w}Smin`, symbol: `L${w}Smin`, words: `${w}, Slow, smallest`, read: (m) => m.read(w).minDb.Slow },
  { id: `${w}peak`, symbol: `L${w}peak`, words: `${w}, peak`, read: (m) => m.read(w).peakDb },
];

export const QUANTITIES: Quantity[] = WEIGHTINGS.flatMap(of);

export const quantityOf = (id: string): Quantity => QUANTITIES.find((q) => q.id === id) ?? QUANTITIES[0]!;

/** A level for large figures: one decimal; a dash for what is not known yet. */
export const figure = (db: number): string =>
  Number.isFinite(db) ? db.toFixed(1).replace('-', '\u2212') : '\u2013';

/** Seconds in words: 10 s, 1 min, 1 h. */
export function duration(seconds: number): string {
  if (seconds >= 3600 && seconds % 3600 === 0) return `${seconds / 3600} h`;
  return seconds >= 60 && seconds % 60 === 0 ? `${seconds / 60} min` : `${seconds} s`;
}
