import { cosineStep, harmonicLead, inverseRealFft, type HalfSpectrum, type Sweep } from '../signal/index.js';
import type { Disturbance } from './disturbance.js';

/** Octaves in which a rumble can sound just as long as the sweep dwells, Hz. */
const OCTAVES = [
  { from: 22, to: 38 },
  { from: 38, to: 76 },
  { from: 76, to: 150 },
] as const;
/** Above the noise by this much, and not this far below the loudspeaker, something sounded that no harmonic explains: 30 % of distortion would not. */
const RISE_DB = 13;
const NO_HARMONIC_DB = -10;
const BLOCK_S = 0.1;
/** What lies so shortly ahead of time zero belongs to the response: its band rings both ways. */
const AHEAD_S = 0.05;

/**
 * A rumble that sounded while the sweep itself passed through the lows. It lies there among the harmonics, ahead of the
 * linear response, so what the response and its harmonics cannot explain hides it; but no room sounds ahead of its
 * loudspeaker, and no harmonic is nearly as loud as what it comes from.
 * @param spectrum of the circular response, time zero at index 0
 */
export function findLowDisturbance(spectrum: HalfSpectrum, sweep: Sweep): Disturbance | null {
  const { rate } = sweep;
  // only the lows are wanted, so a transform a hundredth as long holds them
  let size = spectrum.size;
  while (size > 1024 && rate * (size / 2 / spectrum.size) > 4 * OCTAVES.at(-1)!.to) size /= 2;
  const lowRate = (rate * size) / spectrum.size;
  const block = Math.round(BLOCK_S * lowRate);
  const ahead = Math.round(AHEAD_S * lowRate);
  const blocks = Math.floor(Math.min((harmonicLead(sweep, 6) + 0.1) * lowRate, 0.3 * size) / block);
  let before = -Infinity;
  for (const { from, to } of OCTAVES) {
    if (from < sweep.from) continue;
    const x = inverseRealFft(octave(spectrum, size, rate, from, to));
    const energyDb = (at: number) => {
      let sum = 0;
      for (let i = at; i < at + block; i++) sum += x[(i + 2 * size) % size]! ** 2;
      return 10 * Math.log10(sum / block + 1e-300);
    };
    const responseDb = energyDb(0);
    const free = -Math.round(0.45 * size);
    const noiseDb = [0, 1, 2].reduce((m, i) => Math.max(m, energyDb(free + i * block)), -Infinity);
    const loudest = Math.max(responseDb, before);
    before = responseDb;
    for (let i = 1; i <= blocks; i++) {
      const at = -ahead - i * block;
      const levelDb = energyDb(at);
      if (levelDb < noiseDb + RISE_DB || levelDb < loudest + NO_HARMONIC_DB) continue;
      const passes = sweep.growthS * Math.log(Math.sqrt(from * to) / sweep.from);
      return {
        atS: passes + at / lowRate + BLOCK_S / 2,
        durationS: BLOCK_S,
        fromHz: from,
        toHz: to,
        levelDb: levelDb - noiseDb,
      };
    }
  }
  return null;
}

/** One octave of a spectrum, with soft edges, at a lower rate. */
function octave(
  { size, re, im }: HalfSpectrum,
  lowSize: number,
  rate: number,
  from: number,
  to: number,
): HalfSpectrum {
  const weigh = (part: Float64Array) =>
    Float64Array.from({ length: lowSize / 2 + 1 }, (_, k) => {
      const f = (k * rate) / size;
      return part[k]! * cosineStep(f, 0.85 * from, from) * cosineStep(f, 1.15 * to, to);
    });
  return { size: lowSize, re: weigh(re), im: weigh(im) };
}
