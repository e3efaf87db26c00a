import { needFinite } from '../limits/index.js';
import { convolveLong, gainOfDb, type RealArray } from '../signal/index.js';
import { loudness } from '../level/index.js';

/** One source and the way from it to the ears: responses already with filters and settings in them. */
export interface Way {
  sound: RealArray;
  /** to one ear, or to the left and the right one */
  responses: RealArray[];
}

/**
 * What is heard when several sounds come by their ways: the sum of each convolved with its response.
 * @param length samples of the result; what rings on is cut, unless `wraps`: then it comes in again at the start, for loops
 * @returns as many channels as each way has responses
 */
export function auralise(ways: Way[], length: number, wraps = false): Float32Array[] {
  const ears = ways[0]?.responses.length ?? 0;
  return Array.from({ length: ears }, (_, ear) => {
    const out = new Float32Array(length);
    for (const { sound, responses } of ways) {
      const heard = convolveLong(sound, responses[ear]!);
      for (let i = 0; i < heard.length; i++) {
        if (i >= length && !wraps) break;
        out[i % length] = out[i % length]! + heard[i]!;
      }
    }
    return out;
  });
}

export interface Matched {
  /** of each candidate before matching, LUFS; -Infinity for silence */
  loudness: number[];
  /** what each is changed by, dB: all come to the quietest, so that none can clip that did not */
  trimDb: number[];
}

/** Brings candidates to one loudness (ITU-R BS.1770-4). Silent ones stay as they are. */
export function matchLoudness(candidates: RealArray[][], rate: number): Matched {
  const values = candidates.map((channels) => loudness(channels, rate));
  const heard = values.filter(Number.isFinite);
  const quietest = heard.length > 0 ? Math.min(...heard) : 0;
  return { loudness: values, trimDb: values.map((v) => (Number.isFinite(v) ? quietest - v : 0)) };
}

/** Gain that keeps the largest sample of all candidates, after their trims, below full scale; at most 1. */
export function safeGain(candidates: RealArray[][], trimDb: number[]): number {
  needFinite('safeGain', 'trims', trimDb);
  let most = 0;
  candidates.forEach((channels, i) => {
    const gain = gainOfDb(trimDb[i]!);
    for (const channel of channels) for (const v of channel) most = Math.max(most, gain * Math.abs(v));
  });
  return most > 0.97 ? 0.97 / most : 1;
}
