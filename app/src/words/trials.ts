import { chanceOf } from '@pebble-hall/core/auralisation';
import type { BlindTrial } from '@pebble-hall/core/project';

/** Below this probability chance is told to be unlikely. */
const UNLIKELY = 0.05;

export interface TrialResult {
  turns: number;
  /** how often each candidate was chosen (preference), or the right answers (same or different) */
  counts: number[];
  /** the candidate chosen most; null for same-or-different trials or a draw */
  favourite: number | null;
  /** probability that chance alone gives as much */
  chance: number;
}

/** What a blind trial says. Preference: that one given candidate is chosen as often as the favourite, times the candidates. */
export function trialResult({ kind, candidates, answers }: BlindTrial): TrialResult {
  const turns = answers.length;
  if (kind === 'same or different') {
    const right = answers.filter((a) => a === 1).length;
    return { turns, counts: [right], favourite: null, chance: chanceOf(right, turns, 0.5) };
  }
  const counts = candidates.map((_, i) => answers.filter((a) => a === i).length);
  const most = Math.max(...counts);
  const leaders = counts.filter((c) => c === most).length;
  return {
    turns,
    counts,
    favourite: leaders === 1 && turns > 0 ? counts.indexOf(most) : null,
    // any of the candidates could have come out so far ahead by chance (Bonferroni)
    chance: Math.min(1, candidates.length * chanceOf(most, turns, 1 / candidates.length)),
  };
}

const percent = (p: number) =>
  p < 0.001 ? 'less than 0.1 %' : p < 0.1 ? `${(100 * p).toFixed(1)} %` : `${Math.round(100 * p)} %`;

/** The result in plain words. */
export function trialSentence(trial: BlindTrial): string {
  const { turns, counts, favourite, chance } = trialResult(trial);
  if (turns === 0) return 'No turn was answered.';
  const times = turns === 1 ? '1 turn' : `${turns} turns`;
  const likely = `Guessing alone gives as much with a probability of ${percent(chance)}`;
  const meaning = chance < UNLIKELY ? 'so chance hardly explains it.' : 'so it may well be chance.';
  if (trial.kind === 'same or different')
    return `Right in ${counts[0]} of ${times}. ${likely}, ${chance < UNLIKELY ? 'so a difference was heard.' : 'so no difference is shown.'}`;
  if (favourite === null)
    return `A draw after ${times}: ${trial.candidates.map((c, i) => `${c.name} ${counts[i]}`).join(', ')}.`;
  return `${trial.candidates[favourite]!.name} was preferred in ${counts[favourite]} of ${times}. ${likely}, ${meaning}`;
}
