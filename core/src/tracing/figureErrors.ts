import { needWhole } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { ENERGY_FIGURES, figuresOf, NOTICEABLE, speechIndexOf, type EnergyFigures } from './energyFigures.js';
import { heardAt, type Arrival, type HeardRequest } from './heard.js';
import type { RayGroup } from './traceRays.js';

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
 * @param groups at least 4 of the same request but their number, equally many rays in each
 * @param index of the receiver
 */
export function sureFigures(
  request: HeardRequest,
  arrivals: Arrival[],
  groups: readonly RayGroup[],
  index: number,
): SureFigures {
  needWhole('sureFigures', 'number of groups', groups.length, LEAST_GROUPS, 10_000);
  const all = heardAt(request, arrivals, groups, index);
  const without = groups.map((_, left) => {
    const heard = heardAt(request, arrivals, groups.toSpliced(left, 1), index);
    return { figures: figuresOf(heard), sti: speechIndexOf(heard) };
  });
  const figures = figuresOf(all);
  return {
    figures,
    errors: OCTAVES.map(
      (_, o) =>
        Object.fromEntries(
          ENERGY_FIGURES.map((name) => [name, jackknife(without.map((w) => w.figures[o]![name]))]),
        ) as unknown as EnergyFigures,
    ),
    sti: speechIndexOf(all),
    stiError: jackknife(without.map((w) => w.sti)),
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
