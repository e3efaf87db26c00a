import { needAbove, needWithin } from '../limits/index.js';
import { airAbsorption, speedOfSound, type Air } from './air.js';
import { OCTAVES, type PerOctave } from './octaves.js';

/** What statistics tell of a room, per octave. */
export interface RoomStatistics {
  /** square metres, metres from one reflection to the next on the mean: 4 V / S */
  surface: number;
  meanFreePathM: number;
  /** equivalent absorption area of the surfaces, and of the air (4 m V), square metres */
  area: number[];
  airArea: number[];
  /** reverberation times, seconds, air included: after Sabine, and after Eyring (1930); Infinity where nothing swallows, 0 where everything does */
  sabine: number[];
  eyring: number[];
  /** from there on modes overlap, Hz: 2000 sqrt(T / V) (Schroeder 1962), by Eyring's time at 500 Hz and 1 kHz */
  schroederHz: number;
}

/**
 * Statistics of a room of surfaces: right where what swallows lies evenly about and little of it is.
 * @param volume cubic metres
 * @throws RangeError for no volume, no surface, or shares beyond 0 to 1
 */
export function roomStatistics(
  surfaces: readonly { area: number; absorption: PerOctave }[],
  volume: number,
  air: Air,
): RoomStatistics {
  needAbove('roomStatistics', 'volume in cubic metres', volume, 0);
  const surface = surfaces.reduce((sum, s) => sum + s.area, 0);
  needAbove('roomStatistics', 'surface in square metres', surface, 0);
  for (const { absorption } of surfaces)
    OCTAVES.forEach((hz, o) => needWithin('roomStatistics', `absorption at ${hz} Hz`, absorption[o]!, 0, 1));
  const times = (24 * Math.LN10 * volume) / speedOfSound(air.temperatureC);
  const area = OCTAVES.map((_, o) => surfaces.reduce((sum, s) => sum + s.area * s.absorption[o]!, 0));
  const airArea = OCTAVES.map((hz) => ((4 * Math.LN10) / 10) * airAbsorption(hz, air) * volume);
  const eyring = area.map((a, o) => times / (-surface * Math.log(1 - a / surface) + airArea[o]!));
  return {
    surface,
    meanFreePathM: (4 * volume) / surface,
    area,
    airArea,
    sabine: area.map((a, o) => times / (a + airArea[o]!)),
    eyring,
    schroederHz: 2000 * Math.sqrt((eyring[3]! + eyring[4]!) / 2 / volume),
  };
}

/**
 * By how much each surface would shorten the time of an octave (Eyring) if it swallowed a given share, seconds; below 0 it would lengthen it.
 * @param octave index in `OCTAVES`
 */
export function shortenedBy(
  surfaces: readonly { area: number; absorption: PerOctave }[],
  volume: number,
  air: Air,
  octave: number,
  share: number,
): number[] {
  needWithin('shortenedBy', 'share', share, 0, 1);
  const now = roomStatistics(surfaces, volume, air).eyring[octave]!;
  return surfaces.map((_, i) => {
    const treated = surfaces.map((s, j) =>
      i === j ? { ...s, absorption: s.absorption.map((a, o) => (o === octave ? share : a)) } : s,
    );
    return now - roomStatistics(treated, volume, air).eyring[octave]!;
  });
}
