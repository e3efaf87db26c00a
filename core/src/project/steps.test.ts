import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SubSetting } from '../processing/index.js';
import {
  STARTING_CORRECTION,
  staleSteps,
  shareAlignment,
  STEPS,
  suggestedAlignment,
  plainLoudspeaker,
  takeCrossover,
  takeEvenSeats,
  takeLevels,
  type Correction,
  type Loudspeaker,
  type Project,
  type Step,
} from './index.js';

const loudspeaker = (id: string, role: Loudspeaker['role'], output: number): Loudspeaker =>
  plainLoudspeaker({ id, name: id, model: '', role, output, position: { x: output, y: 0, z: 1 } });
const project = {
  place: {
    loudspeakers: [
      loudspeaker('left', 'full range', 1),
      loudspeaker('right', 'full range', 2),
      loudspeaker('sub-1', 'subwoofer', 3),
      loudspeaker('sub-2', 'subwoofer', 4),
    ],
    spots: [],
  },
  sweeps: [],
  roundId: 'round-1',
} as unknown as Pick<Project, 'place' | 'sweeps' | 'roundId'>;

const setting = (gainDb: number, delayS: number): SubSetting => ({
  gainDb,
  delayS,
  inverted: false,
  sections: [],
});
/** What evens out the seats of this place. */
const even = { 'sub-1': setting(-3, 0.004), 'sub-2': setting(0, 0) };
const crossover = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };

const isJoined = (c: Correction) => Object.keys(c.subs).length > 0;
/** Levels and delays from the home spot: of subwoofers that play together, those of their sum. */
const heard = (c: Correction) => [
  { id: 'left', trimDb: -1.2, delayS: 0.0007 },
  { id: 'right', trimDb: 0, delayS: 0 },
  { id: 'sub-1', trimDb: isJoined(c) ? -5.4 : -8, delayS: isJoined(c) ? 0.0131 : 0.0121 },
  { id: 'sub-2', trimDb: isJoined(c) ? -5.4 : -2.1, delayS: isJoined(c) ? 0.0131 : 0.0149 },
];
/** By how much the subwoofers must be later than the channels to add up, ms. */
const needed = (c: Correction) => (isJoined(c) ? 9.14 : 3.2);
const meanDelay = (c: Correction, ...ids: string[]) =>
  ids.reduce((sum, id) => sum + (c.alignment[id]?.delayMs ?? 0), 0) / ids.length;
const relation = (c: Correction) => meanDelay(c, 'sub-1', 'sub-2') - meanDelay(c, 'left', 'right');

/** A step as the page takes it: worked out from the chain as it is. */
const TAKE: Record<Step, (c: Correction) => Correction> = {
  subs: (c) => takeEvenSeats(project, c, even),
  levels: (c) => takeLevels(project, c, heard(c)),
  crossover: (c) =>
    takeCrossover(
      project,
      c,
      {
        subDelayS: (needed(c) - relation(c)) / 1000,
        subInverted: false,
        highPass: crossover,
        lowPass: crossover,
      },
      ['left', 'right'],
    ),
};
const inTurn = (steps: readonly Step[], from: Correction = STARTING_CORRECTION) =>
  steps.reduce((c, step) => TAKE[step](c), from);
/** What is stale is taken again, until nothing is. */
function redone(c: Correction): Correction {
  let now = c;
  for (let round = 0; staleSteps(project, now).length > 0; round++) {
    expect(round).toBeLessThan(4);
    now = TAKE[staleSteps(project, now)[0]!](now);
  }
  return now;
}
/** The chain as it plays, but for a delay that all have. */
function chain(c: Correction) {
  const least = Math.min(...['left', 'right', 'sub-1', 'sub-2'].map((id) => c.alignment[id]?.delayMs ?? 0));
  const played = ['left', 'right', 'sub-1', 'sub-2'].map((id) => {
    const a = c.alignment[id];
    return [a?.trimDb ?? 0, (a?.delayMs ?? 0) - least, a?.inverted ?? false] as const;
  });
  return { played, subs: c.subs, crossovers: c.crossovers };
}
function expectAlike(a: Correction, b: Correction): void {
  const [x, y] = [chain(a), chain(b)];
  expect([x.subs, x.crossovers]).toEqual([y.subs, y.crossovers]);
  x.played.forEach(([trim, delay, inverted], i) => {
    expect(trim).toBeCloseTo(y.played[i]![0], 6);
    expect(Math.abs(delay - y.played[i]![1])).toBeLessThan(0.021); // two roundings of 0.01 ms
    expect(inverted).toBe(y.played[i]![2]);
  });
}
const canonical = inTurn(STEPS);

describe('levels, subwoofers and crossover', () => {
  it('taken in any order end in one chain, or say what is stale', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...STEPS), { maxLength: 8 }), (steps) => {
        const after = inTurn(steps);
        const isWhole = STEPS.every((step) => steps.includes(step));
        if (isWhole && staleSteps(project, after).length === 0) expectAlike(after, canonical);
        const redoneAfter = redone(after);
        if (isWhole) expectAlike(redoneAfter, canonical);
      }),
      { numRuns: 300 },
    );
  });

  it('levels taken before the subwoofers are brought along, and told to be stale', () => {
    const after = inTurn(['levels', 'subs']);
    expect(after.alignment['sub-1']).toEqual(after.alignment['sub-2']);
    expect(staleSteps(project, after)).toEqual(['levels']);
    expect(staleSteps(project, inTurn(['levels', 'subs', 'crossover']))).toEqual(['levels']);
  });

  it('levels taken again do not undo the crossover', () => {
    const after = inTurn(['subs', 'levels', 'crossover', 'levels', 'levels']);
    expect(relation(after)).toBeCloseTo(9.14, 1);
    expect(staleSteps(project, after)).toEqual([]);
    // and so it is suggested before it is taken
    const alignment = suggestedAlignment(project, canonical, heard(canonical));
    expect(relation({ ...canonical, alignment })).toBeCloseTo(9.14, 1);
  });

  it('what a hand does to delay or polarity of a subwoofer makes the crossover stale', () => {
    const change = (next: object): Correction =>
      shareAlignment(canonical, {
        ...canonical,
        alignment: {
          ...canonical.alignment,
          'sub-1': { ...canonical.alignment['sub-1']!, ...next },
        },
      });
    expect(staleSteps(project, change({ delayMs: 1 }))).toEqual(['crossover']);
    expect(staleSteps(project, change({ inverted: true }))).toEqual(['crossover']);
    // subwoofers that play together have one trim: what one gets, both have
    expect(change({ trimDb: -9 }).alignment['sub-2']!.trimDb).toBe(-9);
    expect(staleSteps(project, change({ trimDb: -9 }))).toEqual([]);
  });

  it('another target makes levels and crossover stale', () => {
    expect(staleSteps(project, { ...canonical, strength: 0.4 })).toEqual(['levels', 'crossover']);
  });
});
