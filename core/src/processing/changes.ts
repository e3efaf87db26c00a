import type { CrossoverFilter, Section } from '../path/index.js';
import type { BassFeed, OutputSettings } from './settings.js';

/** One setting of one output that is not as it was meant to be. */
export interface SettingChange {
  /** from 1 */
  output: number;
  what:
    | 'trim'
    | 'delay'
    | 'polarity'
    | 'muting'
    | 'size'
    | 'high-pass'
    | 'low-pass'
    | 'bass sent'
    | 'bass played'
    | 'sections';
  wanted: string;
  found: string;
}

/** What differs between settings as wanted and as found, in order of outputs, values in words. Taps are filters and do not count. */
export function settingChanges(wanted: OutputSettings[], found: OutputSettings[]): SettingChange[] {
  return wanted.flatMap((w, i) => {
    const f = found[i];
    if (!f) return [];
    const pairs: [SettingChange['what'], string, string][] = [
      ['trim', `${written(w.trimDb, 1)} dB`, `${written(f.trimDb, 1)} dB`],
      ['delay', `${written(w.delayMs, 2)} ms`, `${written(f.delayMs, 2)} ms`],
      ['polarity', polarityText(w), polarityText(f)],
      ['muting', w.muted ? 'muted' : 'open', f.muted ? 'muted' : 'open'],
      ['size', w.size, f.size],
      ['high-pass', crossoverText(w.highPass), crossoverText(f.highPass)],
      ['low-pass', crossoverText(w.lowPass), crossoverText(f.lowPass)],
      ['bass sent', feedText(w.bassFeed), feedText(f.bassFeed)],
      [
        'bass played',
        w.playsBass ? 'of all channels' : 'its own',
        f.playsBass ? 'of all channels' : 'its own',
      ],
      ['sections', sectionsText(w), sectionsText(f)],
    ];
    return pairs.flatMap(([what, a, b]) => (a === b ? [] : [{ output: i + 1, what, wanted: a, found: b }]));
  });
}

const polarityText = (o: OutputSettings) => (o.inverted ? 'inverted' : 'normal');

/** Beyond this a value is rounding. */
const MOST_DIGITS = 6;

/** With as many digits as a value needs, but no fewer than given: values that differ are written differently. */
function written(value: number, digits: number): string {
  let to = digits;
  while (to < MOST_DIGITS && Math.abs(Number(value.toFixed(to)) - value) > 10 ** -MOST_DIGITS) to++;
  return value.toFixed(to);
}

/** "Linkwitz-Riley 24 dB/octave at 110 Hz", "none". */
export const crossoverText = (filter: CrossoverFilter | null): string =>
  filter ? `${filter.kind} ${6 * filter.order} dB/octave at ${filter.frequency} Hz` : 'none';

/** "low-pass Linkwitz-Riley 24 dB/octave at 80 Hz", with the gain where there is one; "none". */
export const feedText = (feed: BassFeed | null): string => {
  if (!feed) return 'none';
  const level = feed.gainDb === 0 ? '' : `${feed.gainDb > 0 ? '+' : ''}${written(feed.gainDb, 1)} dB, `;
  return `${level}low-pass ${crossoverText(feed.lowPass)}`;
};

const sectionsText = ({ sections }: OutputSettings) =>
  sections.length === 0 ? 'none' : sections.map(sectionText).join(', ');

/** "peak 62 Hz -11 dB Q 9", "all-pass 80 Hz Q 0.7", "first-order all-pass 80 Hz". */
function sectionText({ kind, frequency, gainDb, q }: Section): string {
  if (kind === 'first-order all-pass') return `${kind} ${frequency} Hz`;
  return `${kind} ${frequency} Hz ${kind === 'all-pass' ? '' : `${gainDb} dB `}Q ${q}`;
}
