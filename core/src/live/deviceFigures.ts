import { weightingDb } from '../level/index.js';
import { needAbove, needFinite, needWithin } from '../limits/index.js';
import { dbOfPower, fftSizeFor, realFft, type RealArray } from '../signal/index.js';

/** What comes out of a device that is fed a tone. */
export interface ToneFigures {
  /** of the tone as it came out, Hz */
  hz: number;
  /** RMS, dB re full scale */
  levelDb: number;
  /** level of the second to the tenth harmonic below half the rate, re the tone, dB */
  harmonicsDb: { order: number; db: number }[];
  /** all harmonics together re the tone, dB */
  distortionDb: number;
  /** what noise alone would show in the lines of the harmonics, re the tone, dB: below it no distortion is told from noise */
  distortionFloorDb: number;
  /** everything else between 20 Hz and 20 kHz, harmonics among it, re the tone, dB */
  distortionAndNoiseDb: number;
}

/** What comes out of a device that is fed nothing, dB re full scale. */
export interface QuietFigures {
  /** 20 Hz to 20 kHz */
  levelDb: number;
  /** A-weighted, in the same band */
  weightedDb: number;
}

/** Four-term window of Blackman and Harris (Harris 1978): what lies beside a line is 92 dB down four bins away. */
const TERMS = [0.35875, 0.48829, 0.14128, 0.01168] as const;
/** A line is spread over so many bins to either side. */
const SPREAD = 5;
const LEAST_SAMPLES = 8192;
const MOST_HARMONIC = 10;
const BAND = { from: 20, to: 20_000 };

/** Power in each bin of the middle of a recording, so that their sum is its mean square. */
function powerOf(samples: RealArray, rate: number): { power: Float64Array; step: number } {
  needAbove('deviceFigures', 'rate', rate, 0);
  needWithin('deviceFigures', 'number of samples', samples.length, LEAST_SAMPLES, Infinity);
  needFinite('deviceFigures', 'samples', samples);
  const fits = fftSizeFor(samples.length);
  const size = fits > samples.length ? fits / 2 : fits;
  const from = Math.floor((samples.length - size) / 2);
  const windowed = new Float64Array(size);
  let energy = 0;
  for (let i = 0; i < size; i++) {
    const turn = (2 * Math.PI * i) / size;
    const w =
      TERMS[0] - TERMS[1] * Math.cos(turn) + TERMS[2] * Math.cos(2 * turn) - TERMS[3] * Math.cos(3 * turn);
    energy += w * w;
    windowed[i] = w * samples[from + i]!;
  }
  const { re, im } = realFft(windowed);
  const power = re.map((v, k) => (2 * (v * v + im[k]! ** 2)) / (size * energy));
  return { power, step: rate / size };
}

const around = (power: Float64Array, middle: number): number => {
  let sum = 0;
  for (let k = Math.max(1, middle - SPREAD); k <= Math.min(power.length - 1, middle + SPREAD); k++)
    sum += power[k]!;
  return sum;
};

/**
 * Level, harmonic distortion and noise of a tone.
 * @param hz that was played; found within 2 % of it
 * @returns null where no line stands out there
 * @throws RangeError for fewer than 8192 samples, or what is no number
 */
export function toneFigures(samples: RealArray, rate: number, hz: number): ToneFigures | null {
  needWithin('toneFigures', 'frequency in Hz', hz, BAND.from, Math.min(BAND.to, rate / 2));
  const { power, step } = powerOf(samples, rate);
  const strongestIn = (from: number, to: number) => {
    let best = Math.round(from);
    for (let k = best; k <= to && k < power.length; k++) if (power[k]! > power[best]!) best = k;
    return best;
  };
  const line = strongestIn(Math.max(1, (0.98 * hz) / step), (1.02 * hz) / step);
  const tone = around(power, line);
  const [first, last] = [Math.ceil(BAND.from / step), Math.min(power.length - 1, Math.floor(BAND.to / step))];
  let all = 0;
  for (let k = first; k <= last; k++) all += power[k]!;
  // a line holds nearly all within a few bins; noise would be spread
  if (!(tone > 0.5 * all)) return null;
  const harmonicsDb: ToneFigures['harmonicsDb'] = [];
  let harmonics = 0;
  for (let order = 2; order <= MOST_HARMONIC; order++) {
    const near = order * line;
    if (near + order + SPREAD > last) break;
    const found = around(power, strongestIn(near - order, near + order));
    harmonics += found;
    harmonicsDb.push({ order, db: dbOfPower(found / tone) });
  }
  const lines = harmonicsDb.length;
  const others = last - first + 1 - (lines + 1) * (2 * SPREAD + 1);
  const noise = ((all - tone - harmonics) / others) * lines * (2 * SPREAD + 1);
  return {
    hz: middleOf(power, line) * step,
    levelDb: dbOfPower(tone),
    harmonicsDb,
    distortionDb: dbOfPower(harmonics / tone),
    distortionFloorDb: dbOfPower(Math.max(0, noise) / tone),
    distortionAndNoiseDb: dbOfPower(Math.max(0, all - tone) / tone),
  };
}

/** The middle of a line, bins. */
function middleOf(power: Float64Array, line: number): number {
  let [sum, moment] = [0, 0];
  for (let k = Math.max(1, line - SPREAD); k <= Math.min(power.length - 1, line + SPREAD); k++) {
    sum += power[k]!;
    moment += k * power[k]!;
  }
  return moment / sum;
}

/** Noise of a device that is fed nothing. @throws RangeError for fewer than 8192 samples, or what is no number */
export function quietFigures(samples: RealArray, rate: number): QuietFigures {
  const { power, step } = powerOf(samples, rate);
  let [flat, weighted] = [0, 0];
  for (let k = Math.ceil(BAND.from / step); k < power.length && k * step <= BAND.to; k++) {
    flat += power[k]!;
    weighted += power[k]! * 10 ** (weightingDb('A', k * step) / 10);
  }
  return { levelDb: dbOfPower(flat), weightedDb: dbOfPower(weighted) };
}
