import { needAbove, needWhole, needWithin } from '../limits/index.js';
/**
 * Frequencies of a logarithmic grid with points at 1000 * G^(k / perOctave), G = 10^0.3 (IEC 61260-1:2014, base 10),
 * so grids of different spans share their points.
 * @returns Hz, ascending, within [from, to]
 */
export function logGrid(from = 20, to = 20000, perOctave = 48): Float64Array {
  needAbove('logGrid', 'its lower end, Hz,', from, 0);
  needWithin('logGrid', 'its upper end, Hz,', to, from, 1e6);
  needWithin('logGrid', 'points per octave', perOctave, 1, 1000);
  const step = (0.3 / perOctave) * Math.LN10;
  const first = Math.ceil(Math.log(from / 1000) / step - 1e-9);
  const last = Math.floor(Math.log(to / 1000) / step + 1e-9);
  return Float64Array.from({ length: last - first + 1 }, (_, i) => 1000 * Math.exp((first + i) * step));
}

/** A band of a fractional-octave series; edges and centre in Hz (IEC 61260-1:2014, exact base-10 values). */
export interface Band {
  centre: number;
  from: number;
  to: number;
}

/** Bands of 1/`fraction` octave whose centres lie within [from, to]; for even fractions, centres lie off 1 kHz by half a band. */
export function octaveBands(fraction: number, from: number, to: number): Band[] {
  needWhole('octaveBands', 'fraction', fraction, 1, 48);
  needAbove('octaveBands', 'the lower end, Hz,', from, 0);
  needWithin('octaveBands', 'the upper end, Hz,', to, from, 1e6);
  const shift = fraction % 2 === 0 ? 0.5 : 0;
  const at = (k: number) => 1000 * 10 ** ((0.3 * (k + shift)) / fraction);
  const index = (f: number) => (Math.log10(f / 1000) * fraction) / 0.3 - shift;
  const bands: Band[] = [];
  for (let k = Math.ceil(index(from) - 1e-9); k <= Math.floor(index(to) + 1e-9); k++) {
    bands.push({ centre: at(k), from: at(k - 0.5), to: at(k + 0.5) });
  }
  return bands;
}
