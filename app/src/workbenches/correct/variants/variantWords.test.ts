import { STARTING_CORRECTION, type Correction } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { variantWords } from './variantWords';

const words = (over: Partial<Correction> = {}) =>
  variantWords({ correction: { ...STARTING_CORRECTION, ...over } });
const filter = STARTING_CORRECTION.filter;
const lowPass = { kind: 'Butterworth' as const, order: 2, frequency: 80 };

it('tells a variant from another by what it is made of', () => {
  expect(words()).toBe('minimum phase, 100 %, +6 / −15 dB');
  expect(words({ filter: { ...filter, form: 'sections' }, strength: 0.5 })).toBe(
    '10 sections, 50 %, +6 / −15 dB',
  );
  expect(words({ filter: { ...filter, form: 'both', style: 'mixed', sectionCount: 1 } })).toMatch(
    /^1 section and mixed phase, /,
  );
  expect(
    words({
      maxBoostDb: 3,
      maxCutDb: 9,
      alignment: { left: { trimDb: -1, delayMs: 0, inverted: false } },
      subs: { 'sub-1': { gainDb: 0, delayS: 0, inverted: false, sections: [] } },
      crossovers: { left: { highPass: lowPass, lowPass } },
      lowChannel: { gainDb: 10, lowPass },
      headroomGuard: 'off',
    }),
  ).toBe(
    'minimum phase, 100 %, +3 / −9 dB, subs together, aligned, bass managed, low-frequency channel, no headroom guard',
  );
});

it('a crossover that was taken away again is none', () => {
  expect(words({ crossovers: { left: { highPass: null, lowPass: null } } })).not.toMatch(/bass/);
});
