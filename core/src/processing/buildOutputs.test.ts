import { describe, expect, it } from 'vitest';
import { buildOutputs, plainOutput } from './index.js';

const rate = 48000;
const profile = {
  rate,
  leastTrimDb: -80,
  mostTrimDb: 12,
  trimStepDb: 0.1,
  mostDelayMs: 500,
  delayStepMs: 0.001,
  frequencyStepHz: 1,
  qStep: 0.01,
};
const plain = {
  fir: null,
  sections: [],
  alignment: null,
  sub: null,
  role: 'full range' as const,
  crossovers: null,
  allPasses: [],
};
const boost = (gainDb: number) => [{ kind: 'peak' as const, frequency: 100, gainDb, q: 2 }];

describe('buildOutputs', () => {
  it('adds a correction to what the processor did already', () => {
    const base = [{ ...plainOutput(), trimDb: -2, delayMs: 1, inverted: true }, plainOutput()];
    const { outputs, filters } = buildOutputs(
      base,
      [
        {
          id: 'l',
          output: 1,
          fir: Float32Array.of(0.5, 0.1),
          sections: boost(-3),
          alignment: { trimDb: -1.04, delayMs: 2.5, inverted: true },
          role: 'full range',
          sub: { gainDb: -2, delayS: 0.004, inverted: true, sections: boost(-1) },
          crossovers: { highPass: { kind: 'Linkwitz-Riley', order: 4, frequency: 80 }, lowPass: null },
          allPasses: [
            { hz: 71.3, q: 0.7071 },
            { hz: 40, q: null },
          ],
        },
      ],
      { guard: 'off', fitted: [1, 2], profile, low: null },
    );
    expect(outputs[0]).toMatchObject({ trimDb: -5, delayMs: 7.5, inverted: true, taps: 2, size: 'small' });
    expect(outputs[0]!.bassFeed).toEqual({ gainDb: 0, lowPass: null });
    expect(outputs[0]!.sections.map((s) => s.gainDb)).toEqual([-1, -3, 0, 0]);
    // in the steps of the processor
    expect(outputs[0]!.sections.slice(2)).toMatchObject([
      { kind: 'all-pass', frequency: 71, q: 0.71 },
      { kind: 'first-order all-pass', frequency: 40 },
    ]);
    expect(outputs[1]).toEqual(base[1]);
    expect(filters[0]).toHaveLength(2);
    expect(base[0]!.trimDb).toBe(-2); // what went in stays as it was
  });

  it('lowers all that plays by the largest gain of any chain, so that balance stays', () => {
    const channels = [
      { ...plain, id: 'l', output: 1, sections: boost(4) },
      { ...plain, id: 'r', output: 2, sections: boost(-6) },
    ];
    const base = [plainOutput(), plainOutput(), plainOutput(), plainOutput()];
    const { outputs, guardDb, headroom } = buildOutputs(base, channels, {
      guard: 'programme',
      fitted: [1, 2, 3],
      profile,
      low: null,
    });
    expect(headroom['l']!.toneDb).toBeCloseTo(4, 2);
    expect(guardDb).toBeCloseTo(Math.max(4, headroom['l']!.programmeDb), 0);
    const any = buildOutputs(base, channels, { guard: 'full scale', fitted: [1, 2, 3], profile, low: null });
    expect(any.guardDb).toBeGreaterThanOrEqual(guardDb);
    expect(Math.abs(any.guardDb - headroom['l']!.fullScaleDb)).toBeLessThan(0.11);
    expect(outputs.map((o) => o.trimDb)).toEqual([-guardDb, -guardDb, -guardDb, 0]);
  });

  it('sends away what a channel gives up, and lets the subwoofers play it and the low-frequency channel', () => {
    const lowPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };
    const own = { ...lowPass, frequency: 110 };
    const channels = [
      { ...plain, id: 'l', output: 1, crossovers: { highPass: lowPass, lowPass } },
      { ...plain, id: 'r', output: 2 },
      {
        ...plain,
        id: 's',
        output: 3,
        role: 'subwoofer' as const,
        crossovers: { highPass: null, lowPass: own },
      },
    ];
    const low = { input: 4, feed: { gainDb: 10, lowPass: { ...lowPass, frequency: 120 } } };
    const base = [plainOutput(), plainOutput(), plainOutput(), plainOutput()];
    const { outputs, guardDb, lowHeadroom } = buildOutputs(base, channels, {
      guard: 'programme',
      fitted: [1, 2, 3],
      profile,
      low,
    });
    expect(outputs[0]).toMatchObject({ size: 'small', lowPass: null, bassFeed: { gainDb: 0, lowPass } });
    expect(outputs[1]).toMatchObject({ size: 'large', bassFeed: null });
    expect(outputs[2]).toMatchObject({ lowPass: own, bassFeed: null, playsBass: true });
    expect(outputs[3]).toMatchObject({ bassFeed: low.feed, playsBass: false });
    // both low-passes are flat at the lowest frequencies: the chain gains the feed's 10 dB there
    expect(lowHeadroom!.toneDb).toBeCloseTo(10, 1);
    expect(guardDb).toBeGreaterThanOrEqual(10);
    expect(guardDb).toBeLessThan(11);
    expect(() =>
      buildOutputs(base, channels, { guard: 'programme', fitted: [], profile, low: { ...low, input: 9 } }),
    ).toThrow(/no input 9/);
    const without = buildOutputs(base, channels.slice(1), {
      guard: 'programme',
      fitted: [],
      profile,
      low: null,
    });
    expect(without.outputs[2]!.playsBass).toBe(false);
    expect(without.allAtOnce).toBeNull();
  });

  it('tells what the subwoofers are asked for when all that send bass do at once, beside the guard', () => {
    const lowPass = { kind: 'Butterworth' as const, order: 2, frequency: 80 };
    const sending = ['l', 'c', 'r'].map((id, i) => ({
      ...plain,
      id,
      output: i + 1,
      crossovers: { highPass: lowPass, lowPass },
    }));
    const sub = { ...plain, id: 's', output: 4, role: 'subwoofer' as const };
    const quieter = { ...sub, id: 't', output: 5, alignment: { trimDb: -6, delayMs: 0, inverted: false } };
    const { allAtOnce, guardDb } = buildOutputs(
      Array.from({ length: 5 }, plainOutput),
      [...sending, quieter, sub],
      { guard: 'programme', fitted: [1, 2, 3, 4, 5], profile, low: null },
    );
    // three equal feeds, flat at the lowest frequencies, add up to three times one of them
    expect(allAtOnce).toMatchObject({ id: 's', feeds: 3 });
    expect(allAtOnce!.toneDb).toBeCloseTo(20 * Math.log10(3), 2);
    // the same bass in all inputs at once is told, not guarded against
    expect(guardDb).toBeLessThan(allAtOnce!.toneDb - 4);
  });

  it('refuses what the processor cannot hold, by name', () => {
    const late = {
      ...plain,
      id: 'Sub 1',
      output: 1,
      alignment: { trimDb: 0, delayMs: 900, inverted: false },
    };
    expect(() =>
      buildOutputs([plainOutput()], [late], { guard: 'off', fitted: [1], profile, low: null }),
    ).toThrow(/Sub 1: a delay of 900 ms/);
    expect(() =>
      buildOutputs([plainOutput()], [{ ...late, output: 3 }], {
        guard: 'off',
        fitted: [],
        profile,
        low: null,
      }),
    ).toThrow(/no output 3/);
  });
});
