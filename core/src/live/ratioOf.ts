import { dbOfGain } from '../signal/index.js';
import type { TransferCurve } from './transferFunction.js';

/** A curve over another of the same points: difference of levels, dB, and of phases, degrees within half a turn. */
export function ratioOf(
  above: Pick<TransferCurve, 're' | 'im'>,
  below: Pick<TransferCurve, 're' | 'im'>,
): { levelDb: Float64Array; phaseDeg: Float64Array } {
  const levelDb = above.re.map((v, n) =>
    dbOfGain(Math.hypot(v, above.im[n]!) / Math.hypot(below.re[n]!, below.im[n]!)),
  );
  const phaseDeg = above.re.map((v, n) => {
    const [re, im] = [
      v * below.re[n]! + above.im[n]! * below.im[n]!,
      above.im[n]! * below.re[n]! - v * below.im[n]!,
    ];
    return (Math.atan2(im, re) * 180) / Math.PI;
  });
  return { levelDb, phaseDeg };
}
