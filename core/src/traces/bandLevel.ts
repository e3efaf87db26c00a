import { dbOfPower } from '../signal/index.js';
import type { LibraryCurve } from './libraryCurve.js';

/**
 * The level of a curve in a band: its mean power over log frequency, dB.
 * @returns NaN where nothing of it is known there
 */
export function bandLevelDb(
  { frequency, re, im }: Pick<LibraryCurve, 'frequency' | 're' | 'im'>,
  { from, to }: { from: number; to: number },
): number {
  let [power, known] = [0, 0];
  for (let n = 0; n < frequency.length; n++) {
    const here = re[n]! ** 2 + im[n]! ** 2;
    if (frequency[n]! < from || frequency[n]! > to || !Number.isFinite(here)) continue;
    power += here;
    known++;
  }
  return known === 0 ? NaN : dbOfPower(power / known);
}
