import type { Finding } from '@pebble-hall/core/project';
import { reasonSentence } from './sweepReasons';

/** The two likeliest; the list has them first. */
export const or = (names: string[]) => names.slice(0, 2).join(' or ');

/** A finding in one line. */
export function findingSentence(finding: Finding): string {
  switch (finding.kind) {
    case 'reason':
      return reasonSentence(finding.reason);
    case 'shared':
      return `shares output ${finding.output} with ${finding.others.join(' and ')}: match them first, one at a time`;
    case 'silent':
      return 'nothing arrived';
    case 'reversed':
      return 'polarity is inverted: exchange + and \u2212 at the loudspeaker or its plug';
    case 'polarity unclear':
      return 'its polarity cannot be told from here';
    case 'misfit': {
      const what = misfitWords(finding);
      return finding.couldBe.length > 0
        ? `${what}; this sounds like ${or(finding.couldBe)}: see whether the cables are exchanged`
        : `${what}: see whether it stands where the plan has it`;
    }
    case 'distorted':
      return `distorts by ${Math.round(finding.percent)} % (${Math.round(finding.limitPercent)} % is the limit): lower the level, then listen for a buzz`;
  }
}

/** What does not fit the plan. */
export const misfitWords = ({ wrongBand, lateS }: { wrongBand: boolean; lateS: number }): string =>
  wrongBand
    ? 'plays in another band than the plan says'
    : `arrives ${Math.abs(1000 * lateS).toFixed(1)} ms ${lateS > 0 ? 'later' : 'earlier'} than the plan says`;
