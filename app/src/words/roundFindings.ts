import type { RoundFinding } from '@pebble-hall/core/project';
import { misfitWords, or } from './channelFindings';

/** A fault of a channel that a round shows, and what to do about it. */
export function roundFindingSentence({ fault, of, sweeps, isEverywhere }: RoundFinding): string {
  const where = of === 1 ? '' : ` at ${sweeps.length} of ${of} spots`;
  switch (fault.kind) {
    case 'reversed':
      return `polarity is inverted${where}: exchange + and \u2212 at the loudspeaker or its plug`;
    case 'misfit':
      return `${misfitWords(fault)}${fault.couldBe.length > 0 ? `, as ${or(fault.couldBe)} would` : ''}${where}: see whether cables are exchanged${isEverywhere ? '' : ', then repeat'}`;
    case 'distorted':
      return `distorts by up to ${Math.round(fault.percent)} %${where} (${Math.round(fault.limitPercent)} % is the limit): lower the level, then listen for a buzz`;
    case 'silent':
      return `nothing arrived${where}: see whether it is connected, switched on and on this output`;
    case 'rattles':
      return `a noise comes with this channel${where} and hardly with the others: listen to it; measuring again does not help`;
  }
}
