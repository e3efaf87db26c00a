import type { SpeechAndNoise } from '../acoustics/index.js';
import { needWhole } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { ENERGY_FIGURES, figuresOf, NOTICEABLE, speechIndexOf, type EnergyFigures } from './energyFigures.js';
import type { HeardInTurn } from './heard.js';

/** Figures at a receiver with how sure each is: standard errors, from groups of rays that know nothing of each other. */
export interface SureFigures {
  /** per octave */
  figures: EnergyFigures[];
  errors: EnergyFigures[];
  sti: number;
  stiError: number;
}

/** With fewer groups errors are no better than guessed. */
const LEAST_GROUPS = 4;

/**
 * Figures of all groups together, and their errors (standard errors, a little wider since groups are few) by leaving out one group after the other (jackknife; Efron 1982).
 * @param heard with at least 4 groups, equally many rays in each
 * @param levels what speech and noise are there; null for reverberation alone
 */
export function sureFigures(
  { all, without }: HeardInTurn,
  levels: SpeechAndNoise | null = null,
): SureFigures {
  needWhole('sureFigures', 'number of groups', without.length, LEAST_GROUPS, 10_000);
  const parts = without.map((heard) => ({ figures: figuresOf(heard), sti: speechIndexOf(heard, levels) }));
  return {
    figures: figuresOf(all),
    errors: OCTAVES.map(
      (_, o) =>
        Object.fromEntries(
          ENERGY_FIGURES.map((name) => [name, jackknife(parts.map((w) => w.figures[o]![name]))]),
        ) as unknown as EnergyFigures,
    ),
    sti: speechIndexOf(all, levels),
    stiError: jackknife(parts.map((w) => w.sti)),
  };
}

/** So that two errors hold what they hold of a normal distribution, although few groups tell of its width: for Student's, within 3 % from 5 groups on. */
const widened = (groups: number) => 1 + 1.5 / (groups - 1);

/** Standard error from values that were each worked out without one of the groups; NaN where one of them is no number. */
function jackknife(values: number[]): number {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  return widened(n) * Math.sqrt(((n - 1) / n) * values.reduce((sum, v) => sum + (v - mean) ** 2, 0));
}

/** An error in just-noticeable differences of its figure. @param value of the figure: of times the difference is a share */
export function inNoticeable(name: keyof typeof NOTICEABLE, error: number, value: number): number {
  const just = NOTICEABLE[name];
  return error / ('by' in just ? just.by : just.share * value);
}
