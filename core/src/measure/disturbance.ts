import {
  emptySpectrum,
  hannWindow,
  harmonicLead,
  inverseRealFft,
  octaveBands,
  realFft,
  sweepSpectra,
  type ComplexTrace,
  type RealArray,
  type Sweep,
} from '../signal/index.js';
import type { Disturbance } from './disturbanceFound.js';
import { findHiddenDisturbance } from './hiddenDisturbance.js';
import { splitLowHigh } from './splitLowHigh.js';

const BLOCK = 4096;
const HOP = BLOCK / 2;
/** A band must rise this far above the noise's own mean to be called disturbed; Gaussian blocks reach 8 dB now and then. */
const RISE_DB = 13;
/** Rises that follow one another within this time are one disturbance: a slam and its rattle. */
const JOIN_S = 0.2;
/** What lies this far below the loudest of the recording in a band cannot move the response and is not reported. */
const HARMLESS_DB = -58;

/**
 * Disturbances of a sweep: the recording less what the found response (with its harmonics) makes of the sweep leaves
 * noise; where an octave of that remainder rises well above the noise before the sweep, something else sounded.
 * A part of a disturbance hides in the response itself, about as much of it as the response takes up of the recording.
 * @param circular impulse response from `impulseFrom` with `timeZero`, size a power of two
 * @param silence samples of noise alone at the recording's start; with less than two blocks of 4096 nothing can be found
 * @param spectrum of `circular`, where it is known already
 * @param decayS how much of the response belongs to the room
 * @param hasPlayed whether there is a response in which something could hide
 * @param arrivalS when the response begins, seconds after time zero
 */
export function findDisturbances(
  recording: RealArray,
  circular: Float64Array,
  timeZero: number,
  silence: number,
  sweep: Sweep,
  decayS: number,
  hasPlayed: boolean,
  spectrum?: ComplexTrace,
  arrivalS = 0,
): Disturbance[] {
  const { rate } = sweep;
  if (silence < 2 * BLOCK) return [];
  const remainder = withoutSweep(recording.length, circular, timeZero, sweep, decayS, spectrum);
  const bands = octaveBands(1, Math.max(31, sweep.from), Math.min(sweep.to, 16500));
  const window = hannWindow(BLOCK);
  const block = new Float64Array(BLOCK);
  const spectrumOfBlock = emptySpectrum(BLOCK);
  const edges = bands.map(({ from: low, to: high }) => ({
    first: Math.max(1, Math.round((low * BLOCK) / rate)),
    last: Math.round((high * BLOCK) / rate),
  }));
  const levels = (signal: RealArray, from: number) => {
    for (let i = 0; i < BLOCK; i++) block[i] = signal[from + i]! * window[i]!;
    const { re, im } = realFft(block, BLOCK, 1, spectrumOfBlock);
    return edges.map(({ first, last }) => {
      let sum = 1e-30;
      for (let k = first; k < last; k++) sum += re[k]! * re[k]! + im[k]! * im[k]!;
      return sum;
    });
  };

  const noise = bands.map(() => 0);
  let blocks = 0;
  for (let from = 0; from + BLOCK <= silence; from += HOP, blocks++) {
    levels(recording, from).forEach((p, b) => (noise[b] = noise[b]! + p));
  }
  const loudest = bands.map(() => 0);
  for (let from = 0; from + BLOCK <= recording.length; from += BLOCK) {
    levels(recording, from).forEach((p, b) => (loudest[b] = Math.max(loudest[b]!, p)));
  }

  const found: Disturbance[] = [];
  let open: { from: number; to: number; loudest: number; bands: Set<number>; levelDb: number } | null = null;
  const close = () => {
    if (!open) return;
    const list = [...open.bands].sort((a, b) => a - b);
    found.push({
      atS: (open.loudest + HOP - timeZero) / rate,
      durationS: (open.to - open.from) / rate,
      fromHz: bands[list[0]!]!.from,
      toHz: bands[list.at(-1)!]!.to,
      levelDb: open.levelDb,
    });
    open = null;
  };
  for (let from = 0; from + BLOCK <= remainder.length; from += HOP) {
    const risen = levels(remainder, from)
      .map((p, b) => ({
        b,
        riseDb: 10 * Math.log10(p / (noise[b]! / blocks)),
        shareDb: 10 * Math.log10(p / loudest[b]!),
      }))
      .filter(({ riseDb, shareDb }) => riseDb > RISE_DB && shareDb > HARMLESS_DB);
    if (risen.length === 0) {
      if (open && from - open.to > JOIN_S * rate) close();
      continue;
    }
    open ??= { from, to: from, loudest: from, bands: new Set(), levelDb: 0 };
    open.to = from + HOP;
    for (const { b, riseDb } of risen) {
      open.bands.add(b);
      if (riseDb > open.levelDb) {
        open.levelDb = riseDb;
        open.loudest = from;
      }
    }
  }
  close();
  if (!hasPlayed) return found;
  const hidden = findHiddenDisturbance(spectrum ?? realFft(circular), sweep, arrivalS);
  const isTold = hidden && found.some((d) => d.fromHz < hidden.toHz && Math.abs(d.atS - hidden.atS) < 0.5);
  return hidden && !isTold ? [...found, hidden] : found;
}

/**
 * The recording, within the sweep's band, less what response and harmonics up to the sixth make of the sweep: all else
 * that the deconvolution found, played through the sweep again. Each harmonic is given half the time of the linear
 * response to die away, as it starts far lower.
 */
function withoutSweep(
  length: number,
  circular: Float64Array,
  timeZero: number,
  sweep: Sweep,
  longestS: number,
  spectrum?: ComplexTrace,
) {
  const n = circular.length;
  const { rate } = sweep;
  const [low, high] = splitLowHigh(circular, rate, spectrum); // lows ring longer than highs, so each is taken out by itself
  clearResponse(low, sweep, decayEnd(low, rate, longestS, 0.1));
  clearResponse(high, sweep, decayEnd(high, rate, longestS, 0.04));
  for (let i = 0; i < n; i++) low[i] = low[i]! + high[i]!;
  const rest = realFft(low);
  const { forward } = sweepSpectra(sweep, n);
  for (let k = 0; k < rest.re.length; k++) {
    const [a, b, c, d] = [rest.re[k]!, rest.im[k]!, forward.re[k]!, forward.im[k]!];
    rest.re[k] = a * c - b * d;
    rest.im[k] = a * d + b * c;
  }
  const remainder = inverseRealFft(rest, low);
  const shift = Math.round(timeZero);
  // a recording longer than the transform was folded over it: what sounded after the sweep shows at the start
  const out = new Float64Array(Math.min(length, n));
  for (let i = 0; i < out.length; i++) out[i] = remainder[(i - shift + 2 * n) % n]!;
  return out;
}

/** Zeroes a circular response for `decay` samples from just ahead of time zero, and half as many from each harmonic's arrival. */
function clearResponse(circular: Float64Array, sweep: Sweep, decay: number) {
  const n = circular.length;
  const ahead = Math.round(0.05 * sweep.rate);
  const clear = (from: number, to: number) => {
    for (let t = from; t < Math.min(to, from + n); t++) circular[(t + 2 * n) % n] = 0;
  };
  clear(-ahead, decay);
  for (let order = 2; order <= 6; order++) {
    const at = -Math.round(harmonicLead(sweep, order) * sweep.rate);
    if (at > -n / 2) clear(at - ahead, at + Math.round(decay / 2));
  }
}

/**
 * Samples after time zero at which a response has decayed: a room's energy sinks, so the decay ends where blocks of
 * `blockS` have set no new minimum three times. What rises after that (a bang, spread out by the deconvolution) is not
 * the room's.
 */
function decayEnd(circular: Float64Array, rate: number, longestS: number, blockS: number): number {
  const block = Math.round(blockS * rate);
  const longest = Math.min(circular.length / 2, Math.round(longestS * rate));
  let least = Infinity;
  let last = 0;
  for (let from = block; from + block <= longest && from - last < 4 * block; from += block) {
    let sum = 0;
    for (let i = from; i < from + block; i++) sum += circular[i]! ** 2;
    if (sum < 0.9 * least) {
      least = sum;
      last = from + block;
    }
  }
  return Math.min(longest, Math.max(4 * block, last));
}
