import { dbOfPower, interpolateLog, powerOfDb } from '../signal/index.js';
import { SPLIT_HZ } from './splitLowHigh.js';
import type { BandMargin } from './signalToNoise.js';
import type { DecayEnd } from './trimNoise.js';

const THIRD = 2 ** (1 / 6);
/** Octaves that a sweep from 20 Hz to 20 kHz passes, its fades included. */
const SWEPT_OCTAVES = Math.log2(1000) + 0.5 + 1 / 6;
/** A response that was not faded out holds the noise of so many seconds. */
const STORED_S = 1.3;
/** The fade from a knee to one and a half times its time lets as much noise through as a cut at this. */
const FADED = 1 + 0.5 * 0.375;

/**
 * Margins of a response, from those of its sweep: noise of the sweep's time in a third octave became noise over as long as
 * the response is kept, so a long decay stands less above it. With M the margin, t the time that the sweep dwells and T the
 * time kept, M t / T is left (the energy of noise that was deconvolved is even in time).
 * @param sweepS seconds from 20 Hz to 20 kHz
 */
export function responseMargins(
  margins: Pick<BandMargin, 'centre' | 'snrDb'>[],
  decayEnd: DecayEnd | null,
  sweepS: number,
): { centre: number; snrDb: number }[] {
  const dwellS = sweepS / SWEPT_OCTAVES / 3;
  return margins.map(({ centre, snrDb }) => {
    const knee = centre < SPLIT_HZ ? decayEnd?.lowS : decayEnd?.highS;
    const keptS = knee ? FADED * knee : STORED_S;
    return { centre, snrDb: snrDb - 10 * Math.log10(keptS / dwellS) };
  });
}

/**
 * How far a response stands above its noise at each frequency. In a third octave the noise lies so far below the mean
 * power of the response as the margin says; where the response has a dip, it is nearer to it by as much.
 * @param levelDb on `frequency` (Hz, ascending), smoothed as it is judged
 * @param margins at least one; a band where nothing rose above the noise counts as all noise
 * @returns dB, as long as `frequency`; linear over log frequency between band centres, flat beyond the outer ones
 */
export function aboveNoiseDb(
  frequency: Float64Array,
  levelDb: Float64Array,
  margins: Pick<BandMargin, 'centre' | 'snrDb'>[],
): Float64Array {
  if (margins.length === 0) throw new RangeError('aboveNoiseDb: needs the margin of one band at least');
  const noise = margins.flatMap(({ centre, snrDb }) => {
    let [power, n] = [0, 0];
    frequency.forEach((f, i) => {
      if (f < centre / THIRD || f >= centre * THIRD) return;
      power += powerOfDb(levelDb[i]!);
      n++;
    });
    return n === 0 ? [] : [{ centre, db: dbOfPower(power / n) - Math.max(0, snrDb) }];
  });
  const noiseDb = interpolateLog(
    Float64Array.from(noise, (b) => b.centre),
    Float64Array.from(noise, (b) => b.db),
    frequency,
  );
  return levelDb.map((level, i) => level - noiseDb[i]!);
}

/** By how much noise that lies so far below a level can move it at most, dB: the two in phase. */
export const noiseMovesDb = (aboveDb: number): number => 20 * Math.log10(1 + 10 ** (-aboveDb / 20));
