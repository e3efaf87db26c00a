import type { CrossoverFilter } from '@pebble-hall/core/path';
import { feedText, type OutputSettings } from '@pebble-hall/core/processing';

export interface SettingsRead {
  /** acts on top of a correction */
  addUp: string[];
  /** belongs to the loudspeaker and is measured with it */
  stay: string[];
  /** is overwritten when a correction is loaded */
  replaced: string[];
}

const signed = (value: number) => `${value > 0 ? '+' : '\u2212'}${Math.abs(value)}`;

const crossover = (kind: 'high-pass' | 'low-pass', filter: CrossoverFilter | null) =>
  filter ? [`${kind} ${filter.frequency} Hz, ${filter.kind} ${6 * filter.order} dB per octave`] : [];

/** What a memory's outputs do, by what becomes of it when a correction is loaded; each with the channel's name. */
export function readSettings(outputs: OutputSettings[], named: (output: number) => string): SettingsRead {
  const out: SettingsRead = { addUp: [], stay: [], replaced: [] };
  outputs.forEach((output, i) => {
    const { trimDb, delayMs, inverted, muted, size, highPass, lowPass, bassFeed, sections, taps } = output;
    const name = named(i + 1);
    const adds = [
      ...(muted ? ['muted'] : []),
      ...(trimDb !== 0 ? [`${signed(trimDb)} dB`] : []),
      ...(delayMs !== 0 ? [`${delayMs} ms`] : []),
      ...(inverted ? ['polarity inverted'] : []),
    ];
    if (adds.length > 0) out.addUp.push(`${name} ${adds.join(', ')}`);
    const filters = [
      ...(size === 'small' ? crossover('high-pass', highPass) : []),
      ...crossover('low-pass', lowPass),
    ];
    if (filters.length > 0) out.stay.push(`${name} ${filters.join(', ')}`);
    if (sections.length > 0) out.replaced.push(`${name} ${sections.length} sections`);
    if (bassFeed) out.replaced.push(`${name} bass to the subwoofers, ${feedText(bassFeed)}`);
    if (taps > 0) out.replaced.push(`${name} filter of ${taps} taps`);
  });
  return out;
}
