import type { RoundFault, RoundFinding } from '@pebble-hall/core/project';

/** The two likeliest; the list has them first. */
const or = (names: string[]) => names.slice(0, 2).join(' or ');

/** A fault of a channel that a round shows, and what to do about it. */
export function roundFindingSentence({ fault, of, sweeps, isEverywhere }: RoundFinding): string {
  const where = of === 1 ? '' : ` at ${sweeps.length} of ${of} spots`;
  switch (fault.kind) {
    case 'reversed':
      return `polarity is inverted${where}: exchange + and \u2212 at the loudspeaker or its plug`;
    case 'misfit':
      return `${misfitWords(fault)}${where}: see whether cables are exchanged${isEverywhere ? '' : ', then repeat'}`;
    case 'distorted':
      return `distorts by up to ${Math.round(fault.percent)} %${where} (${Math.round(fault.limitPercent)} % is the limit): lower the level, then listen for a buzz`;
    case 'silent':
      return `nothing arrived${where}: see whether it is connected, switched on and on this output`;
    case 'rattles':
      return `a noise comes with this channel${where} and hardly with the others: listen to it; measuring again does not help`;
  }
}

function misfitWords({ wrongBand, lateS, couldBe }: RoundFault & { kind: 'misfit' }): string {
  const what = wrongBand
    ? 'plays in another band than the plan says'
    : `arrives ${Math.abs(1000 * lateS).toFixed(1)} ms ${lateS > 0 ? 'later' : 'earlier'} than the plan says`;
  return couldBe.length > 0 ? `${what}, as ${or(couldBe)} would` : what;
}
