import type { Band } from '../signal/index.js';
import { needAbove } from '../limits/index.js';

/**
 * Power in bands from power at bins, each bin taken as constant half a step to either side: bands that end within one get their
 * share of it.
 * @param power mean square at each bin, `step` apart, the first at 0 Hz
 * @param step Hz between bins
 * @returns mean square in each band, as many as `bands`; what lies above the last bin counts as nothing
 */
export function powerInBands(power: Float64Array, step: number, bands: readonly Band[]): Float64Array {
  needAbove('powerInBands', 'step between bins in Hz', step, 0);
  // power below the upper edge of each bin
  const below = new Float64Array(power.length + 1);
  for (let k = 0; k < power.length; k++) below[k + 1] = below[k]! + power[k]!;
  const upTo = (hz: number) => {
    const at = Math.min(power.length, Math.max(0, hz / step + 0.5));
    const k = Math.floor(at);
    return below[k]! + (at - k) * (power[k] ?? 0);
  };
  return Float64Array.from(bands, (b) => upTo(b.to) - upTo(b.from));
}
