import { describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject.js';
import { sweepForTest } from '../../../demo/sweepForTest.js';
import { fittedOf } from './progress.js';
import { roundFindings, roundNoise } from './roundFindings.js';
import { travelS } from './travel.js';
import type { Loudspeaker, Project, Spot, Sweep } from './types.js';

const plain = netLoftProject();
const spots = plain.place.spots.slice(0, 4);
const LATENCY_S = 0.0123;
const bandOf = (l: Loudspeaker) => (l.role === 'subwoofer' ? { from: 25, to: 100 } : { from: 63, to: 16000 });

/** A round in which every channel arrives as the plan has it; `change` says what is special of a sweep. */
function roundWith(
  change: (l: Loudspeaker, spot: Spot) => Partial<Sweep> & { playedBy?: string } = () => ({}),
): Project {
  const fitted = fittedOf(plain);
  const sweeps = spots.flatMap((spot) =>
    fitted.map((l) => {
      const { playedBy, ...rest } = change(l, spot);
      const source = fitted.find((o) => o.id === playedBy) ?? l;
      return sweepForTest(spot.id, l.id, {
        verdict: { state: 'good', reasons: [], snrDb: 40, band: bandOf(source) },
        polarity: {
          reversed: false,
          certainty: 2,
          arrivalS: LATENCY_S + travelS(plain, source, spot.position),
        },
        ...rest,
      });
    }),
  );
  return { ...plain, place: { ...plain.place, spots }, sweeps };
}
const reversedAt = (s: Sweep['polarity']) => ({ ...s!, reversed: true });
const disturbed = (l: Loudspeaker): Partial<Sweep> => ({
  verdict: {
    state: 'doubtful',
    reasons: [
      { kind: 'disturbed', disturbance: { atS: 1, durationS: 0.2, fromHz: 100, toHz: 900, levelDb: 20 } },
    ],
    snrDb: 40,
    band: bandOf(l),
  },
});

describe('what the sweeps of a round tell of its channels', () => {
  it('is nothing of a sound round', () => {
    expect(roundFindings(roundWith())).toEqual([]);
  });

  it('polarity that is inverted wherever the channel was heard, not at one seat of four', () => {
    const inverted = roundWith();
    const left = inverted.sweeps.filter((s) => s.loudspeakerId === 'left');
    for (const s of left) s.polarity = reversedAt(s.polarity);
    expect(roundFindings(inverted)).toMatchObject([
      { loudspeaker: { id: 'left' }, fault: { kind: 'reversed' }, of: 4, isEverywhere: true },
    ]);
    const once = roundWith();
    const one = once.sweeps.find((s) => s.loudspeakerId === 'left')!;
    one.polarity = reversedAt(one.polarity);
    expect(roundFindings(once)).toEqual([]);
    // what cannot be told is not told
    for (const s of left) s.polarity = { ...s.polarity!, certainty: 1.05 };
    expect(roundFindings(inverted)).toEqual([]);
  });

  it('exchanged outputs, by whose place each has: throughout, and at one spot', () => {
    const swap: Record<string, string> = { left: 'surround-left', 'surround-left': 'left' };
    const through = roundFindings(roundWith((l) => ({ playedBy: swap[l.id] })));
    expect(through.map((f) => [f.loudspeaker.id, f.isEverywhere])).toEqual([
      ['left', true],
      ['surround-left', true],
    ]);
    expect(through[0]!.fault).toMatchObject({ kind: 'misfit', wrongBand: false });
    expect((through[0]!.fault as { couldBe: string[] }).couldBe[0]).toBe('Surround left');
    const once = roundFindings(roundWith((l, s) => (s === spots[2] ? { playedBy: swap[l.id] } : {})));
    expect(once.map((f) => [f.loudspeaker.id, f.isEverywhere, f.sweeps.map((s) => s.spotId)])).toEqual([
      ['left', false, [spots[2]!.id]],
      ['surround-left', false, [spots[2]!.id]],
    ]);
  });

  it('a loudspeaker that distorts, and one that rattles at every spot while the others are quiet', () => {
    const distorts = roundFindings(roundWith((l) => (l.id === 'centre' ? { distortionDb: -14 } : {})));
    expect(distorts).toMatchObject([
      { loudspeaker: { id: 'centre' }, fault: { kind: 'distorted' }, isEverywhere: true },
    ]);
    expect((distorts[0]!.fault as { percent: number }).percent).toBeCloseTo(19.95, 1); // 10^(-14/20)
    const rattles = roundFindings(roundWith((l) => (l.id === 'centre' ? disturbed(l) : {})));
    expect(rattles).toMatchObject([{ loudspeaker: { id: 'centre' }, fault: { kind: 'rattles' } }]);
    // a noisy hour is nobody's fault
    expect(roundFindings(roundWith((l) => disturbed(l)))).toEqual([]);
  });

  it('a channel that is silent at every spot, once; not one that is at a single spot', () => {
    const silent = {
      state: 'failed' as const,
      reasons: [{ kind: 'silent' as const, snrDb: 2 }],
      snrDb: 2,
      band: null,
    };
    const through = roundFindings(roundWith((l) => (l.id === 'centre' ? { verdict: silent } : {})));
    expect(through).toMatchObject([{ loudspeaker: { id: 'centre' }, fault: { kind: 'silent' }, of: 4 }]);
    const once = roundWith((l, s) => (l.id === 'centre' && s === spots[1] ? { verdict: silent } : {}));
    expect(roundFindings(once)).toEqual([]);
  });

  it('hum is told with the spots at which it was heard', () => {
    const hum = { kind: 'hum' as const, mainsHz: 50 as const, multiples: [50, 100], riseDb: 20 };
    const [noise, ...more] = roundNoise(
      roundWith((_, s) => ({
        noise: s === spots[1] ? [hum] : s === spots[3] ? [{ ...hum, riseDb: 26 }] : [],
      })),
    );
    expect(more).toEqual([]);
    expect(noise!.trait.riseDb).toBe(26);
    expect(noise!.spots).toEqual([spots[1], spots[3]]);
  });
});
