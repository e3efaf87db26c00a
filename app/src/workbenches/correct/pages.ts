/** What the lower half of Correct is about. */
export const PAGES = ['Shape', 'Filter', 'Levels and delays', 'Subwoofers', 'Bass', 'Variants'] as const;
export type Page = (typeof PAGES)[number];

/** What the plot shows of a channel. */
export const LOOKS = ['Level', 'Filter', 'Phase', 'Impulse', 'Step', 'Decay'] as const;
export type Look = (typeof LOOKS)[number];
/** What several channels can be seen in at once. */
export const GROUP_LOOKS: readonly Look[] = ['Level', 'Filter'];

/** What is drawn of the levels. */
export interface Shown {
  /** of a family: each channel as found, too */
  found: boolean;
  seatRangeBefore: boolean;
  seatRangeAfter: boolean;
  spots: boolean;
  /** channels that send their bass to the subwoofers, without it */
  alone: boolean;
}
