import { describe, expect, it } from 'vitest';
import { faultsOf, type MeasuredAgain } from './faultsOf';

const polarity = { reversed: false, certainty: 2.5, arrivalS: 0.01 };
const verdict = { state: 'good' as const, reasons: [], snrDb: 45, band: { from: 60, to: 16000 } };
const sound: MeasuredAgain = {
  role: 'full range',
  found: { polarity, distortionDb: -52 },
  verified: { polarity, distortionDb: -50, verdict, stage: 'verified' },
  isInverted: false,
  levelAgrees: true,
  laterS: 0,
  othersArrive: true,
  arrivesLike: null,
};
const again = (change: Partial<MeasuredAgain['verified']>, more: Partial<MeasuredAgain> = {}) =>
  faultsOf({ ...sound, ...more, verified: { ...sound.verified, ...change } });

describe('a channel that was measured again', () => {
  it('has no fault where nothing changed, nor where what was loaded inverts it', () => {
    expect(faultsOf(sound)).toEqual([]);
    expect(again({ polarity: { ...polarity, reversed: true } }, { isInverted: true })).toEqual([]);
  });

  it('is inverted where it moves the other way than what was loaded says', () => {
    expect(again({ polarity: { ...polarity, reversed: true } })).toEqual([
      expect.stringMatching(/polarity is inverted/),
    ]);
    expect(again({}, { isInverted: true })).toHaveLength(1);
    // not where either cannot be told, or two loudspeakers play
    expect(again({ polarity: { ...polarity, reversed: true, certainty: 1.15 } })).toEqual([]);
    expect(again({ polarity: null })).toEqual([]);
    expect(again({ polarity: { ...polarity, reversed: true }, stage: 'verified with bass' })).toEqual([]);
  });

  it('distorts where it did not as found, in per cent', () => {
    // 10^(-16/20) = 15.8 %, 10^(-52/20) = 0.25 %
    const [told] = again({ distortionDb: -16 });
    expect(told).toMatch(/16 % \(0\.3 % as found\)/);
    expect(again({ distortionDb: -24 }, { found: { polarity, distortionDb: -25 } })).toEqual([]);
  });

  it('is not judged sound through a disturbance, but nearness to the noise is judged elsewhere', () => {
    const disturbance = { atS: 1, durationS: 0.2, fromHz: 200, toHz: 900, levelDb: 30 };
    const reasons = [{ kind: 'disturbed' as const, disturbance }];
    expect(again({ verdict: { ...verdict, state: 'doubtful', reasons } })).toHaveLength(1);
    const near = [{ kind: 'near noise' as const, snrDb: 15, aimDb: 30 }];
    expect(again({ verdict: { ...verdict, state: 'doubtful', reasons: near } })).toEqual([]);
  });

  it('is told to be exchanged where it arrives as another would, though its level agrees', () => {
    expect(again({}, { laterS: 0.002, arrivesLike: 'Right' })[0]).toMatch(/as Right would/);
    expect(again({}, { laterS: 0.002, levelAgrees: false, arrivesLike: 'Right' })).toEqual([]);
    expect(again({}, { laterS: 0.002, othersArrive: false, arrivesLike: 'Right' })).toEqual([]);
  });
});
