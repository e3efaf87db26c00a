import { expect, it } from 'vitest';
import { pathTrace } from '../path/index.js';
import { plainLoudspeaker } from '../project/index.js';
import { coverageChannel, settingsPath } from './channels.js';

const NONE = { alignment: {}, subs: {}, crossovers: {}, allPasses: {}, sections: {} };
const level = (path: Parameters<typeof pathTrace>[0], f: number) => {
  const { re, im } = pathTrace(path, Float64Array.of(f));
  return 20 * Math.log10(Math.hypot(re[0]!, im[0]!));
};

it('takes trim, delay, polarity, crossover and sections of a variant, and what a subwoofer does among several', () => {
  const sub = { id: 'sub', role: 'subwoofer' as const };
  const lowPass = { kind: 'Linkwitz-Riley' as const, frequency: 100, order: 4 };
  const path = settingsPath(
    sub,
    {
      alignment: { sub: { trimDb: -3, delayMs: 5, inverted: true } },
      subs: { sub: { gainDb: -2, delayS: 0.001, inverted: true, sections: [] } },
      crossovers: { sub: { highPass: null, lowPass } },
      allPasses: { sub: [{ hz: 300, q: null }] },
      sections: { sub: [{ kind: 'peak', frequency: 40, gainDb: -4, q: 3 }] },
    },
    48_000,
  );
  expect(path.delayS).toBeCloseTo(0.006, 12);
  expect(path.inverted).toBe(false);
  expect(level(path, 40)).toBeCloseTo(-9 - 20 * Math.log10(1 + 0.4 ** 4), 1);
  expect(level(path, 100)).toBeCloseTo(-5 - 6.02, 0);
  expect(path.filters).toHaveLength(
    settingsPath(sub, { ...NONE, crossovers: { sub: { highPass: null, lowPass } } }, 48_000).filters.length +
      2,
  );
  // of a full-range channel the low-pass is that of its bass, which the subwoofers play
  const main = settingsPath(
    { id: 'sub', role: 'full range' },
    { ...NONE, crossovers: { sub: { highPass: null, lowPass } } },
    48_000,
  );
  expect(level(main, 1000)).toBeCloseTo(0, 9);
});

it('a group is as many boxes, each with what it gets of its own', () => {
  const pair = plainLoudspeaker({
    id: 'p',
    name: 'Pair',
    role: 'subwoofer',
    output: 1,
    position: { x: 1, y: 2, z: 0.4 },
    group: { kind: 'gradient', spacingM: 0.8, rearDelayMs: 2.3 },
  });
  const model = {
    name: 'm',
    about: '',
    axis: {
      kind: 'filters',
      low: { frequency: 30, order: 2 },
      high: { frequency: 200, order: 2 },
      resonances: [],
    },
    radiation: { kind: 'ways', ways: [] },
    largestDb: 120,
    sensitivityDb: 90,
  };
  const { boxes } = coverageChannel(pair, model, settingsPath(pair, NONE, 48_000));
  expect(boxes.map((b) => [b.delayMs, b.inverted])).toEqual([
    [0, false],
    [2.3, true],
  ]);
  expect(boxes[0]!.position.x).not.toBe(boxes[1]!.position.x);
});
