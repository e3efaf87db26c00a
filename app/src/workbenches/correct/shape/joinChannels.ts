import type { Alignment, Correction } from '@pebble-hall/core/project';
import type { CrossoverSetting } from '@pebble-hall/core/alignment';

const plain: Alignment = { trimDb: 0, delayMs: 0, inverted: false };

/**
 * The parts of a correction that change when channels and subwoofers are joined as found: a delay that would have to be
 * negative is given to all full-range channels instead, a turned polarity is the subwoofers'.
 * @param crossed the channels that get the crossover
 */
export function withJoint(
  { alignment, crossovers }: Pick<Correction, 'alignment' | 'crossovers'>,
  { subDelayS, subInverted, highPass, lowPass }: CrossoverSetting,
  { mains, subs, crossed }: { mains: string[]; subs: string[]; crossed: string[] },
): Pick<Correction, 'alignment' | 'crossovers'> {
  const next = { ...alignment };
  const change = (ids: string[], to: (was: Alignment) => Partial<Alignment>) => {
    for (const id of ids) {
      const was = next[id] ?? plain;
      next[id] = { ...was, ...to(was) };
    }
  };
  change(subDelayS >= 0 ? subs : mains, ({ delayMs }) => ({
    delayMs: Math.round(100 * (delayMs + 1000 * Math.abs(subDelayS))) / 100,
  }));
  if (subInverted) change(subs, ({ inverted }) => ({ inverted: !inverted }));
  return {
    alignment: next,
    crossovers: { ...crossovers, ...Object.fromEntries(crossed.map((id) => [id, { highPass, lowPass }])) },
  };
}
