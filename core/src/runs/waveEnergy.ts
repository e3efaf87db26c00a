import { bandSignals, octaveEnergy } from '../acoustics/index.js';
import { OCTAVES, type Lows } from '../room/index.js';
import { BIN_S, type Arrival, type Heard, type HeardInTurn } from '../tracing/index.js';
import { OPEN_EAR } from './head.js';
import type { LowsPlan } from './lows.js';
import { earResponses, type PressureRequest } from './pressureResponse.js';

/** Hz: enough for the lowest octaves. */
const RATE = 4000;

/** So many octaves, from the lowest on, are told by waves: those whose middle lies below where waves and rays are joined. */
export const octavesByWaves = ({ upToHz }: Pick<LowsPlan, 'upToHz'>): number =>
  OCTAVES.filter((hz) => hz <= upToHz).length;

/**
 * Energy over time of the lowest octaves, of the response in which waves tell the lows: where modes lie apart, rays know nothing of how
 * each of them dies away.
 * @param heard as rays tell it @param lowsIn what waves bring, see `earResponses` @param octaves see `octavesByWaves`
 * @returns of each octave a row of the bins of what is heard, against the same pulse of 0 dB
 */
export function energyByWaves(
  heard: Heard,
  request: Omit<PressureRequest, 'rate'>,
  lowsIn: (into: { rate: number; size: number; zero: number }) => Lows,
  octaves: number,
): Float64Array[] {
  const { channels, zero } = earResponses(heard, { ...request, rate: RATE }, [OPEN_EAR], (into) => [
    lowsIn({ ...into, rate: RATE }),
  ]);
  const bands = OCTAVES.slice(0, octaves).map((hz) => ({ from: hz / Math.SQRT2, to: hz * Math.SQRT2 }));
  const pulse = Float64Array.of(1);
  return bandSignals(channels[0]!, bands, RATE).map((samples, b) => {
    const row = new Float64Array(heard.bins);
    const by = 1 / octaveEnergy(pulse, bands[b]!, RATE);
    samples.forEach((v, i) => {
      // a filter without phase rings a little ahead of the direct sound: that is its
      const bin = Math.max(0, Math.floor((i - zero) / (RATE * BIN_S)));
      if (bin < row.length) row[bin] = row[bin]! + by * v * v;
    });
    return row;
  });
}

/** What is heard, with other energies in its lowest octaves; of where they come from nothing is known any more. */
export function withRows(heard: Heard, rows: readonly Float64Array[]): Heard {
  const energy = heard.energy.slice();
  rows.forEach((row, o) => energy.set(row, o * heard.bins));
  const arrivals = heard.arrivals.map((a): Arrival => ({
    ...a,
    energy: a.energy.slice().fill(0, 0, rows.length),
  }));
  return { ...heard, energy, arrivals };
}

/** The same of all groups together and without each of them. */
export const withRowsInTurn = (
  { all, without }: HeardInTurn,
  rows: readonly Float64Array[],
): HeardInTurn => ({
  all: withRows(all, rows),
  without: without.map((heard) => withRows(heard, rows)),
});
