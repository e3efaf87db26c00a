import type { RoundFinding } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { roundFindingSentence } from './roundFindings';

const finding = (fault: RoundFinding['fault'], count: number, of: number): RoundFinding => ({
  loudspeaker: { name: 'Left' } as RoundFinding['loudspeaker'],
  fault,
  sweeps: Array.from({ length: count }, () => ({}) as RoundFinding['sweeps'][number]),
  of,
  isEverywhere: count > of / 2,
});

it('says what is wrong with a channel, where, and what to do', () => {
  expect(roundFindingSentence(finding({ kind: 'reversed' }, 4, 4))).toMatch(/inverted at 4 of 4 spots/);
  expect(roundFindingSentence(finding({ kind: 'reversed' }, 1, 1))).not.toMatch(/spots/);
  const misfit = { kind: 'misfit' as const, wrongBand: false, lateS: 0.0021, couldBe: ['Right', 'Centre'] };
  expect(roundFindingSentence(finding(misfit, 4, 4))).toMatch(/2\.1 ms later .* as Right or Centre would/);
  // measuring again helps only where it was so at single spots
  expect(roundFindingSentence(finding(misfit, 4, 4))).not.toMatch(/repeat/);
  expect(roundFindingSentence(finding(misfit, 1, 4))).toMatch(/repeat/);
  const distorted = { kind: 'distorted' as const, percent: 19.6, limitPercent: 5 };
  expect(roundFindingSentence(finding(distorted, 3, 4))).toMatch(/20 % at 3 of 4 spots \(5 % is the limit\)/);
  expect(roundFindingSentence(finding({ kind: 'silent' }, 4, 4))).toMatch(/nothing arrived at 4 of 4 spots/);
  expect(roundFindingSentence(finding({ kind: 'rattles' }, 4, 4))).toMatch(/does not help/);
});
