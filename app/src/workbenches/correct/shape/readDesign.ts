import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { Correction } from '@pebble-hall/core/project';
import { smoothLevels } from '@pebble-hall/core/signal';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { changeWords, readLeftAlone } from '../../../words/leftAlone';

export interface DesignNote {
  text: string;
  small?: string;
  attention?: boolean;
  /** where it stands in the plot */
  at?: { frequency: number; levelDb: number };
}

const MOST_LEFT_ALONE = 3;
const WORTH_A_WORD_DB = 3;

/** Reads a design aloud: the strongest peak and what became of it, what was left alone and why, where the span ends. */
export function readDesign(
  design: ChannelDesign,
  grid: Float64Array,
  { maxBoostDb, maxCutDb, strength }: Correction,
): DesignNote[] {
  const { span, found, targetDb, gainDb } = design;
  const smooth = smoothLevels(grid, found.averageDb, 6);
  const notes: DesignNote[] = [];
  let top = -1;
  smooth.forEach((level, i) => {
    if (grid[i]! < span.from || grid[i]! > span.to) return;
    if (top < 0 || level - targetDb[i]! > smooth[top]! - targetDb[top]!) top = i;
  });
  const over = top < 0 ? 0 : smooth[top]! - targetDb[top]!;
  if (over > WORTH_A_WORD_DB) {
    notes.push({
      text: `Peak at ${formatHz(grid[top]!)}, ${formatDb(over)} over the target: ${strength === 0 ? 'not touched, strength is 0 %' : `${changeWords(gainDb[top]!)}`}.`,
      at: { frequency: grid[top]!, levelDb: smooth[top]! + 1.5 },
    });
  }
  const worst = [...design.leftAlone].sort(
    (a, b) => Math.abs(b.offDb + b.gainDb) - Math.abs(a.offDb + a.gainDb),
  );
  for (const one of worst.slice(0, MOST_LEFT_ALONE)) {
    const i = grid.findIndex((f) => f >= one.at);
    notes.push({
      ...readLeftAlone(one, maxBoostDb, maxCutDb),
      attention: true,
      at: { frequency: one.at, levelDb: smooth[i]! - 1.5 },
    });
  }
  if (worst.length === 0 && strength > 0)
    notes.push({ text: 'Nothing within the span had to be left alone.' });
  if (worst.length > MOST_LEFT_ALONE) {
    const rest = worst.slice(MOST_LEFT_ALONE);
    notes.push({
      text: `${rest.length} lesser ${rest.length === 1 ? 'place is' : 'places are'} left alone for the same kinds of reason.`,
      small: rest.map((r) => formatHz(r.at)).join(', '),
    });
  }
  const ends = [
    span.from > 21 ? `below ${formatHz(span.from)}` : '',
    span.to < 19500 ? `above ${formatHz(span.to)}` : '',
  ].filter(Boolean);
  if (ends.length > 0) {
    notes.push({ text: `${capital(ends.join(' and '))} nothing is changed: the span ends there.` });
  }
  const rollOff = [
    design.ends.low ? `below ${formatHz(design.ends.low.cornerHz)}` : '',
    design.ends.high ? `above ${formatHz(design.ends.high.cornerHz)}` : '',
  ].filter(Boolean);
  if (rollOff.length > 0)
    notes.push({ text: `The target falls with the natural roll-off ${rollOff.join(' and ')}.` });
  return notes;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
