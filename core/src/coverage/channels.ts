import {
  allPassAsSection,
  crossoverBiquads,
  inSeries,
  sectionBiquad,
  signalPath,
  type SignalPath,
} from '../path/index.js';
import { boxesOf } from '../place/index.js';
import { subPath } from '../processing/index.js';
import type { Correction, Loudspeaker } from '../project/index.js';
import type { ChannelOf } from './levelMap.js';

/** What a variant sets by numbers. */
export type SettingsInMap = Pick<Correction, 'alignment' | 'subs' | 'crossovers' | 'allPasses' | 'sections'>;

/**
 * What a variant sets of a channel by numbers: trim, delay, polarity, crossovers, all-passes, sections by hand, and what a subwoofer does among
 * several. Filters that are worked out from measurements are not in it.
 */
export function settingsPath(
  { id, role }: Pick<Loudspeaker, 'id' | 'role'>,
  settings: SettingsInMap,
  rate: number,
): SignalPath {
  const alignment = settings.alignment[id];
  const crossovers = settings.crossovers[id];
  const sub = settings.subs[id];
  const own = signalPath(rate, {
    gainDb: alignment?.trimDb ?? 0,
    delayS: (alignment?.delayMs ?? 0) / 1000,
    inverted: alignment?.inverted ?? false,
    filters: [
      ...crossoverBiquads('highpass', crossovers?.highPass ?? null, rate),
      // that of a full-range channel is of its bass on the way to the subwoofers
      ...crossoverBiquads('lowpass', role === 'subwoofer' ? (crossovers?.lowPass ?? null) : null, rate),
      ...[...(settings.sections[id] ?? []), ...(settings.allPasses[id] ?? []).map(allPassAsSection)].map(
        (s) => sectionBiquad(s, rate),
      ),
    ],
  });
  return sub ? inSeries(own, subPath(sub, rate)) : own;
}

/** A channel of a place as the map takes it, with its model, or what that is to be had from. */
export const coverageChannel = <Model>(
  loudspeaker: Loudspeaker,
  model: Model,
  path: SignalPath,
): ChannelOf<Model> => ({
  id: loudspeaker.id,
  model,
  path,
  boxes: boxesOf(loudspeaker).map(({ position, axes, delayMs, inverted }) => ({
    position,
    axes,
    delayMs,
    inverted,
  })),
});
