import { fftSizeFor, powerOf, realFft, type Band, type RealArray } from '../signal/index.js';

/**
 * Energy of a signal in each band: sum of squared samples, by Parseval; a bin that straddles an edge is shared out.
 * @returns as long as `bands`; a full-scale sine of n samples gives n / 2 in its band
 */
export function bandEnergy(signal: RealArray, rate: number, bands: Band[]): Float64Array {
  const size = fftSizeFor(signal.length);
  const power = powerOf(realFft(signal, size));
  const perHz = rate / size;
  return Float64Array.from(bands, ({ from, to }) => {
    let sum = 0;
    const last = Math.min(power.length - 1, Math.ceil(to / perHz + 0.5));
    for (let k = Math.max(1, Math.floor(from / perHz - 0.5)); k <= last; k++) {
      const share = Math.min(to, (k + 0.5) * perHz) - Math.max(from, (k - 0.5) * perHz);
      if (share > 0) sum += (power[k]! * share) / perHz;
    }
    return (2 * sum) / size;
  });
}
