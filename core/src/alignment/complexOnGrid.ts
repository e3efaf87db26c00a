import { fineSpectrum } from '../measure/index.js';
import type { HalfSpectrum, ImpulseResponse } from '../signal/index.js';

/** Complex values at the frequencies of a list that is kept beside them. */
export interface ComplexCurve {
  re: Float64Array;
  im: Float64Array;
}

/**
 * Complex response of an impulse response at given frequencies (Hz), phase from its time zero; read between bins 0.37 Hz
 * apart by linear interpolation, the bulk of the delay taken out ahead.
 */
export function complexOnGrid(
  impulse: ImpulseResponse,
  frequency: Float64Array,
  spectrum: HalfSpectrum = fineSpectrum(impulse),
): ComplexCurve {
  const { rate, zero } = impulse;
  const { size, re, im } = spectrum;
  const out = { re: new Float64Array(frequency.length), im: new Float64Array(frequency.length) };
  const turn = (2 * Math.PI * zero) / size;
  frequency.forEach((f, i) => {
    const x = (f * size) / rate;
    const k = Math.min(Math.floor(x), re.length - 2);
    const t = x - k;
    for (const [bin, weight] of [
      [k, 1 - t],
      [k + 1, t],
    ] as const) {
      const [c, s] = [Math.cos(turn * bin), Math.sin(turn * bin)];
      out.re[i] = out.re[i]! + weight * (re[bin]! * c - im[bin]! * s);
      out.im[i] = out.im[i]! + weight * (re[bin]! * s + im[bin]! * c);
    }
  });
  return out;
}
