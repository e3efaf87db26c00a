import { cosineStep, type ComplexTrace } from '../signal/index.js';
import { OCTAVES, octaveShares } from './octaves.js';

/** What replaces the lower octaves up to a frequency. */
export interface Lows {
  octaves: readonly ComplexTrace[];
  upToHz: number;
}

/**
 * One spectrum of octaves that each hold an impulse response with its own losses: at every frequency the shares of its two
 * neighbours, played through a loudspeaker.
 * @param lows below a frequency these are used in their place, a third of an octave across
 */
export function joinOctaves(
  loudspeaker: ComplexTrace,
  octaves: readonly ComplexTrace[],
  rate: number,
  lows: Lows | null = null,
): ComplexTrace {
  const bins = loudspeaker.re.length;
  const size = 2 * (bins - 1);
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  const shares = new Float64Array(OCTAVES.length);
  for (let k = 0; k < bins; k++) {
    const f = (k * rate) / size;
    octaveShares(f, shares);
    const modal = lows ? lowShare(f, lows.upToHz) : 0;
    let [sumRe, sumIm] = [0, 0];
    for (let o = 0; o < OCTAVES.length; o++) {
      if (shares[o] === 0) continue;
      if (modal < 1) {
        sumRe += shares[o]! * (1 - modal) * octaves[o]!.re[k]!;
        sumIm += shares[o]! * (1 - modal) * octaves[o]!.im[k]!;
      }
      const low = lows?.octaves[o];
      if (modal > 0 && low) {
        sumRe += shares[o]! * modal * low.re[k]!;
        sumIm += shares[o]! * modal * low.im[k]!;
      }
    }
    re[k] = sumRe * loudspeaker.re[k]! - sumIm * loudspeaker.im[k]!;
    im[k] = sumRe * loudspeaker.im[k]! + sumIm * loudspeaker.re[k]!;
  }
  im[bins - 1] = 0;
  return { frequency: loudspeaker.frequency, re, im };
}

const lowShare = (f: number, upToHz: number) =>
  f > 0 ? cosineStep(Math.log(f), Math.log(upToHz * 1.2), Math.log(upToHz / 1.2)) : 1;
