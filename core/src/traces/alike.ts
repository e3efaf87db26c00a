import { needWithin } from '../limits/index.js';
import { dbOfGain } from '../signal/index.js';
import { onSharedPoints, type LibraryCurve } from './libraryCurve.js';

/** How alike two curves are within a band, over log frequency. */
export interface Alike {
  /** of the first over the second, mean of the levels, dB */
  meanDb: number;
  /** what is left when that is taken off, RMS, dB */
  rmsDb: number;
  /** between their phases, RMS, degrees; null where one has none */
  rmsDeg: number | null;
}

/** @returns null where they share nothing that is known within the band */
export function alikeWithin(
  first: LibraryCurve,
  second: LibraryCurve,
  band: { from: number; to: number },
): Alike | null {
  needWithin('alikeWithin', 'lower end in Hz', band.from, 0, band.to);
  let shared: LibraryCurve[];
  try {
    shared = onSharedPoints([first, second]);
  } catch {
    return null;
  }
  const [a, b] = shared as [LibraryCurve, LibraryCurve];
  const db: number[] = [];
  const deg: number[] = [];
  a.frequency.forEach((f, n) => {
    if (f < band.from || f > band.to) return;
    const apart = dbOfGain(Math.hypot(a.re[n]!, a.im[n]!) / Math.hypot(b.re[n]!, b.im[n]!));
    if (!Number.isFinite(apart)) return;
    db.push(apart);
    const turn = Math.atan2(
      a.im[n]! * b.re[n]! - a.re[n]! * b.im[n]!,
      a.re[n]! * b.re[n]! + a.im[n]! * b.im[n]!,
    );
    deg.push((turn * 180) / Math.PI);
  });
  if (db.length === 0) return null;
  const meanDb = db.reduce((sum, v) => sum + v, 0) / db.length;
  const rms = (values: number[]) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);
  return {
    meanDb,
    rmsDb: rms(db.map((v) => v - meanDb)),
    rmsDeg: first.hasPhase && second.hasPhase ? rms(deg) : null,
  };
}
