import {
  indexOfMatrix,
  modulationTransfer,
  MODULATION_HZ,
  reverberation,
  type SpeechAndNoise,
} from '../acoustics/index.js';
import { needAbove, needFinite } from '../limits/index.js';
import { OCTAVES } from '../room/index.js';
import { energyOverTime, type Heard } from './heard.js';
import { BIN_S } from './traceRays.js';

/** Figures of ISO 3382-1:2009 in an octave; NaN where the response is too short, or nothing arrives. */
export interface EnergyFigures {
  /** seconds */
  edt: number;
  t20: number;
  t30: number;
  /** dB; Infinity where nothing comes late */
  c50: number;
  c80: number;
  /** 0 to 1 */
  d50: number;
  /** seconds */
  ts: number;
  /** sound strength, dB: against the same source in the open at 10 m */
  g: number;
  /** early lateral energy fraction, 0 to 1 */
  lf: number;
}

export const ENERGY_FIGURES = ['edt', 't20', 't30', 'c50', 'c80', 'd50', 'ts', 'g', 'lf'] as const;

/** Just-noticeable differences (ISO 3382-1:2009, table A.1; of the speech transmission index IEC 60268-16): times as shares of themselves. */
export const NOTICEABLE = {
  edt: { share: 0.05 },
  t20: { share: 0.05 },
  t30: { share: 0.05 },
  c50: { by: 1 },
  c80: { by: 1 },
  d50: { by: 0.05 },
  ts: { by: 0.01 },
  g: { by: 1 },
  lf: { by: 0.05 },
  sti: { by: 0.03 },
} as const satisfies Record<string, { share: number } | { by: number }>;

const LATERAL_FROM_S = 0.005;
/** Against the direct sound at 1 m: the level of an omnidirectional source in the open at 10 m, dB. */
const AT_10_M_DB = -20;
/** Of the end of a response this share is left out: what would come after it is missing there from the integrated decay. */
const END = 0.1;

/**
 * Figures of energy over time: bins of `BIN_S`, the first of which begins with the direct sound, or where nothing of it comes with the
 * first that arrives.
 * @param energy @param lateral as much of it as comes from the sides, each at least 0
 */
export function energyFigures(energy: Float64Array, lateral: Float64Array): EnergyFigures {
  needFinite('energyFigures', 'energy', energy);
  needFinite('energyFigures', 'lateral energy', lateral);
  const first = energy.findIndex((e) => e > 0);
  if (first < 0) return Object.fromEntries(ENERGY_FIGURES.map((f) => [f, NaN])) as unknown as EnergyFigures;
  const sum = (of: Float64Array, fromS: number, toS: number) => {
    let total = 0;
    const to = Math.min(of.length, first + Math.round(toS / BIN_S));
    for (let b = first + Math.round(fromS / BIN_S); b < to; b++) total += of[b]!;
    return total;
  };
  const all = sum(energy, 0, Infinity);
  const clarity = (limitS: number) => 10 * Math.log10(sum(energy, 0, limitS) / sum(energy, limitS, Infinity));
  let moment = 0;
  for (let b = first; b < energy.length; b++) moment += energy[b]! * (b - first + 0.5) * BIN_S;
  const decay = decayOf(energy.subarray(first), all);
  const time = (stretch: 'EDT' | 'T20' | 'T30') => {
    const found = reverberation(decay, stretch);
    return found.found ? found.value : NaN;
  };
  return {
    edt: time('EDT'),
    t20: time('T20'),
    t30: time('T30'),
    c50: clarity(0.05),
    c80: clarity(0.08),
    d50: sum(energy, 0, 0.05) / all,
    ts: moment / all,
    g: 10 * Math.log10(all) - AT_10_M_DB,
    lf: sum(lateral, LATERAL_FROM_S, 0.08) / sum(energy, 0, 0.08),
  };
}

/** The integrated decay, and how far down it is whole. */
function decayOf(energy: Float64Array, all: number) {
  const levelDb = new Float64Array(energy.length);
  let left = all;
  energy.forEach((e, b) => {
    levelDb[b] = 10 * Math.log10(Math.max(left, all * 1e-12) / all);
    left -= e;
  });
  const whole = Math.floor((1 - END) * (energy.length - 1));
  return { stepS: BIN_S, levelDb, rangeDb: -levelDb[whole]!, kneeS: energy.length * BIN_S };
}

/** Figures in all octaves. */
export const figuresOf = (heard: Heard): EnergyFigures[] =>
  OCTAVES.map((_, o) => energyFigures(energyOverTime(heard, o), energyOverTime(heard, o, 'lateral')));

/** Octaves of speech among `OCTAVES`: 125 Hz to 8 kHz. */
const FIRST_OF_SPEECH = 1;

/** Speech transmission index at a receiver (IEC 60268-16:2011), from the energy over time. @param levels null for reverberation alone */
export function speechIndexOf(heard: Heard, levels: SpeechAndNoise | null = null): number {
  const rate = 1 / BIN_S;
  needAbove('speechIndexOf', 'number of bins', heard.bins, 0);
  const matrix = OCTAVES.slice(FIRST_OF_SPEECH).map((_, k) => {
    const energy = energyOverTime(heard, k + FIRST_OF_SPEECH);
    return MODULATION_HZ.map((hz) => modulationTransfer(energy, rate, hz));
  });
  return matrix.some((row) => row.some(Number.isNaN)) ? NaN : indexOfMatrix(matrix, levels);
}
