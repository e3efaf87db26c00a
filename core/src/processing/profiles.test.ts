import { describe, expect, it } from 'vitest';
import { exactChannel, STARTING_FILTER, withinProcessor } from '../correct/index.js';
import { processorProfile } from '../project/index.js';
import { logGrid } from '../signal/index.js';
import { FILES_ONLY, limitsOf, PROFILES } from './index.js';

const profile = (name: string) => PROFILES.find((p) => p.model.startsWith(name))!;

it('are profiles, each with a name of its own, and no line leads to any', () => {
  for (const p of PROFILES) {
    expect(processorProfile.validate(p).error, p.model).toBeUndefined();
    expect(p.memories).toEqual([]);
  }
  expect(new Set(PROFILES.map((p) => p.model)).size).toBe(PROFILES.length);
});

it.each([
  [{ mostTaps: 0, mostSections: 0 }, /cannot correct anything/],
  [{ rate: NaN }, /rate/],
  [{ outputs: 1e9 }, /outputs/],
  [{ leastQ: 5, mostQ: 1 }, /mostQ/],
  [{ sectionKinds: ['notch'] }, /sectionKinds/],
  [{ model: undefined }, /model/],
  [{ anything: 1 }, /anything/],
])('%j is refused with a reason', (change, reason) => {
  expect(processorProfile.validate({ ...FILES_ONLY, ...change }).error?.message).toMatch(reason);
});

describe('a filter keeps to its processor', () => {
  const grid = logGrid();
  const gainDb = grid.map((f) => -8 * Math.exp(-((Math.log2(f / 60) * 6) ** 2)));
  const design = {
    id: 'x',
    gainDb,
    span: { from: 20, to: 20000 },
    room: { boostDb: grid.map(() => 6), cutDb: grid.map(() => 15) },
  };
  const limits = { maxBoostDb: 6, maxCutDb: 15 };

  it('without taps it is made of sections, in the steps that the processor takes', () => {
    const ledge = profile('Ledge');
    const made = exactChannel(grid, design, limits, STARTING_FILTER, limitsOf(ledge));
    expect(made.fir).toBeNull();
    expect(made.sections.length).toBeGreaterThan(0);
    for (const s of made.sections) {
      expect(Math.abs(s.gainDb / ledge.gainStepDb - Math.round(s.gainDb / ledge.gainStepDb))).toBeLessThan(
        1e-6,
      );
      expect(Math.abs(s.q / ledge.qStep - Math.round(s.q / ledge.qStep))).toBeLessThan(1e-6);
      expect(s.q).toBeGreaterThanOrEqual(ledge.leastQ);
      expect(s.gainDb).toBeGreaterThanOrEqual(ledge.leastSectionDb);
    }
  });

  it('at its rate, with as many taps as it holds', () => {
    const groyne = profile('Groyne');
    const { fir } = exactChannel(grid, design, limits, STARTING_FILTER, limitsOf(groyne));
    expect(fir).toHaveLength(groyne.mostTaps);
  });

  it('of a choice is left what the processor can do', () => {
    const few = { ...limitsOf(FILES_ONLY), mostSections: 3, sectionKinds: ['peak' as const], mostQ: 2 };
    expect(withinProcessor({ ...STARTING_FILTER, form: 'both' }, few)).toMatchObject({
      form: 'both',
      sectionCount: 3,
      kinds: ['peak'],
      mostQ: 2,
    });
    expect(withinProcessor({ ...STARTING_FILTER, form: 'both' }, { ...few, mostSections: 0 }).form).toBe(
      'fir',
    );
  });
});
