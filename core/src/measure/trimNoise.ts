import { cosineStep, type ImpulseResponse } from '../signal/index.js';
import { splitLowHigh } from './splitLowHigh.js';

/** Blocks in which a decay is followed into the noise, seconds: lows, highs. */
const BLOCK_S = [0.1, 0.03] as const;
/** The decay ends where two blocks running lie less than this above the noise, as power. */
const KNEE = 2;
/** Ahead of this, seconds, only the lows ring: the highs there are noise. */
const HIGHS_AHEAD_S = 0.02;

/** Where lows and highs (parted at 300 Hz) have sunk into the noise, seconds after time zero; null where they do not. */
export interface DecayEnd {
  lowS: number | null;
  highS: number | null;
}

/**
 * An impulse response faded out where its decay has sunk into the noise, lows and highs apart, since what lies behind
 * holds noise alone (the truncation at the knee of ISO 3382-1:2009, B.3; the fade takes half as long again). Without noise, or
 * with a decay that never gets there, its end stays as it is. Ahead of time zero the highs are kept for 20 ms.
 * @param impulse a power of two long; the noise is known from its last quarter
 */
export function trimNoise({ samples, rate, zero }: ImpulseResponse): {
  impulse: ImpulseResponse;
  decayEnd: DecayEnd;
} {
  const out = new Float32Array(samples.length);
  const knees: (number | null)[] = [];
  splitLowHigh(Float64Array.from(samples), rate).forEach((band, b) => {
    const knee = kneeOf(band, zero, Math.round(BLOCK_S[b]! * rate));
    knees.push(knee === null ? null : (knee - zero) / rate);
    const from = b === 0 ? 0 : Math.max(0, zero - HIGHS_AHEAD_S * rate);
    for (let i = 0; i < out.length; i++) {
      const fadeIn = from === 0 ? 1 : cosineStep(i, 0.9 * from, from);
      out[i] =
        out[i]! + fadeIn * band[i]! * (knee === null ? 1 : cosineStep(i, zero + 1.5 * (knee - zero), knee));
    }
  });
  const [lowS, highS] = [knees[0] ?? null, knees[1] ?? null];
  return { impulse: { samples: out, rate, zero }, decayEnd: { lowS, highS } };
}

/** Index at which a band has sunk into its noise; null when it does not. */
function kneeOf(band: Float64Array, zero: number, block: number): number | null {
  const energy = (from: number) => {
    let sum = 0;
    for (let i = from; i < from + block; i++) sum += band[i]! ** 2;
    return sum;
  };
  const late: number[] = [];
  // the last eighth of a stored response is faded and would look quieter than it is
  const [from, to] = [Math.floor(band.length * 0.62), Math.floor(band.length * 0.86)];
  for (let i = from; i + block <= to; i += block) late.push(energy(i));
  const floor = late.sort((a, b) => a - b)[late.length >> 1] ?? 0;
  if (!(floor > 0)) return null;
  let loudest = 0;
  let quiet = 0;
  for (let i = zero; i + block <= to; i += block) {
    const here = energy(i);
    loudest = Math.max(loudest, here);
    if (loudest < 30 * floor) continue; // not arrived yet, or never well above the noise
    quiet = here < KNEE * floor ? quiet + 1 : 0;
    if (quiet === 2) return i - block;
  }
  return null;
}
