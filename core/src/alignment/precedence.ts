import { needLevels, needNumber } from '../limits/index.js';

/** What comes later by this much, seconds, is heard from where the first came from ... */
export const LEADS_S = { from: 0.001, to: 0.03 } as const;
/** ... as long as it is not louder than the first by more, dB (Haas 1951: the louder echo that is as loud to the ear). */
export const LEADS_DB = 10;

/** Two sources at one place, as who listens there hears them. */
export interface HeardTwo {
  /** by how much the second is heard later, seconds; below 0 it is first */
  laterS: number;
  /** how much louder the second is, dB */
  louderDb: number;
}

/** Why the first of two is not the one that is heard from. */
export type NotLed = 'too loud' | 'first' | 'too late';

/** Whether the first of two sources is where the sound seems to come from; what keeps it from that where it does not. */
export function notLed({ laterS, louderDb }: HeardTwo): NotLed | null {
  needNumber('notLed', 'how much later in s', laterS);
  needLevels('notLed', 'how much louder in dB', [louderDb]);
  // so soft that it does not matter when it comes
  if (louderDb < -LEADS_DB) return null;
  if (laterS < LEADS_S.from) return 'first';
  if (laterS > LEADS_S.to) return 'too late';
  return louderDb > LEADS_DB ? 'too loud' : null;
}

/** The delay with which the second comes so much after the first at a place, from the delay that it has. All in seconds. */
export const delayForOffset = (delayS: number, laterS: number, offsetS: number): number =>
  delayS + offsetS - laterS;
