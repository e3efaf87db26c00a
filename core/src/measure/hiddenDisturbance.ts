import {
  cosineStep,
  fftSizeOf,
  harmonicLead,
  inverseRealFft,
  octaveBands,
  type ComplexTrace,
  type Sweep,
} from '../signal/index.js';
import type { Disturbance } from './disturbanceFound.js';

/** Above the noise by this much, and not this far below the loudspeaker, something sounded that no harmonic explains: 30 % of distortion would not. */
const RISE_DB = 13;
const NO_HARMONIC_DB = -10;
/**
 * A room's energy may beat as it dies away; in the lows, over blocks of 0.1 s, it does not rise again by so much in the octave
 * around 63 Hz, and in one half as wide, whose level is known from half as much, not by root two times that.
 */
const BACK_DB = 9;
const BACK_OCTAVE_HZ = 63;
const LOWS_HZ = 150;
/** Above the lows a late echo may bring some of it back, but nothing as loud as the sound that the room began with, over blocks of 0.1 s. */
const LOUDER_DB = 3;
const HIGHEST_HZ = 4100;
/** How many periods of its lowest tone a block of an octave holds, within limits; what lies half a block ahead of time zero may still be the response's, as its band rings both ways. */
const PERIODS = 4;
const BLOCK_S = { least: 0.01, most: 0.1 };

/**
 * Something that sounded while the sweep itself passed through the same octave. It lies among the harmonics or in the
 * linear response, so what response and harmonics cannot explain does not show it; but no room sounds ahead of its
 * loudspeaker, no harmonic is nearly as loud as what it comes from, and no room gets louder again as it dies away, or louder than it began.
 * @param spectrum of the circular response, time zero at index 0
 * @param arrivalS when the response begins, seconds after time zero: in a large place much later
 */
export function findHiddenDisturbance(
  spectrum: ComplexTrace,
  sweep: Sweep,
  arrivalS = 0,
): Disturbance | null {
  const { rate } = sweep;
  let below = -Infinity;
  for (const { centre, from, to } of octaveBands(1, 31, HIGHEST_HZ)) {
    if (from < 0.9 * sweep.from || to > sweep.to) continue;
    const { x, lowRate } = octaveAt(spectrum, rate, from, to);
    const size = x.length;
    const blockS = Math.min(BLOCK_S.most, Math.max(BLOCK_S.least, PERIODS / from));
    const block = Math.round(blockS * lowRate);
    const ahead = Math.round(block / 2);
    const energyDb = (at: number, length = block) => {
      let sum = 0;
      for (let i = at; i < at + length; i++) sum += x[(i + 2 * size) % size]! ** 2;
      return 10 * Math.log10(sum / length + 1e-300);
    };
    const begins = Math.round(arrivalS * lowRate);
    const responseDb = energyDb(begins);
    const free = -Math.round(0.45 * size);
    let noiseDb = -Infinity;
    for (let i = 0; i * block < 0.3 * lowRate; i++) noiseDb = Math.max(noiseDb, energyDb(free + i * block));
    const loudest = Math.max(responseDb, below);
    below = responseDb;
    const passes = sweep.growthS * Math.log(centre / sweep.startsAt);
    const told = (at: number, levelDb: number): Disturbance => ({
      atS: passes + at / lowRate + blockS / 2,
      durationS: blockS,
      fromHz: from,
      toHz: to,
      levelDb: levelDb - noiseDb,
    });
    const back = Math.floor(Math.min((harmonicLead(sweep, 6) + 0.1) * lowRate, 0.3 * size) / block);
    for (let i = 1; i <= back; i++) {
      const at = -ahead - i * block;
      const levelDb = energyDb(at);
      if (levelDb > noiseDb + RISE_DB && levelDb > loudest + NO_HARMONIC_DB) return told(at, levelDb);
    }
    if (to > LOWS_HZ) {
      const long = Math.round(BLOCK_S.most * lowRate);
      const firstDb = energyDb(begins, long);
      for (let at = begins + long; at < begins + 0.8 * lowRate; at += long) {
        const levelDb = energyDb(at, long);
        if (levelDb > noiseDb + RISE_DB && levelDb > firstDb + LOUDER_DB) return told(at, levelDb);
      }
      continue;
    }
    // in a large room it takes a block until as much comes back from its surfaces as came first
    let least = Math.max(responseDb, energyDb(begins + block));
    const backDb = BACK_DB * Math.sqrt(Math.max(1, BACK_OCTAVE_HZ / centre));
    for (let at = begins + 2 * block; at < begins + 0.8 * lowRate; at += block) {
      const levelDb = energyDb(at);
      if (levelDb > noiseDb + RISE_DB && levelDb > least + backDb) return told(at, levelDb);
      least = Math.min(least, levelDb);
    }
  }
  return null;
}

/** One octave of a circular response, with soft edges, at as low a rate as holds it. */
function octaveAt({ re, im }: ComplexTrace, rate: number, from: number, to: number) {
  const size = fftSizeOf({ re });
  let short = size;
  while (short > 1024 && rate * (short / 2 / size) > 2.5 * to) short /= 2;
  const bins = short / 2 + 1;
  const [bandRe, bandIm] = [new Float64Array(bins), new Float64Array(bins)];
  const first = Math.max(0, Math.floor((0.85 * from * size) / rate));
  const last = Math.min(bins - 1, Math.ceil((1.15 * to * size) / rate));
  for (let k = first; k <= last; k++) {
    const f = (k * rate) / size;
    const share = cosineStep(f, 0.85 * from, from) * cosineStep(f, 1.15 * to, to);
    bandRe[k] = re[k]! * share;
    bandIm[k] = im[k]! * share;
  }
  const x = inverseRealFft({ re: bandRe, im: bandIm });
  return { x, lowRate: (rate * short) / size };
}
