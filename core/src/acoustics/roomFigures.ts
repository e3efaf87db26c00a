import { findArrival } from '../measure/index.js';
import { octaveBands, type Band, type ImpulseResponse } from '../signal/index.js';
import { findDecay, reverberation, type Found } from './decay.js';
import { octaveEnergy, bandSignals } from './octaveFilter.js';

/** The figures of ISO 3382-1:2009 for one octave at one spot. Times in seconds, C in dB, D50 from 0 to 1. */
export interface OctaveFigures {
  edt: Found;
  t20: Found;
  t30: Found;
  c50: Found;
  c80: Found;
  d50: Found;
  ts: Found;
  /** from the start of the decay down to the noise, dB; Infinity without noise, 0 where nothing decays */
  rangeDb: number;
}

export const FIGURES = ['edt', 't20', 't30', 'c50', 'c80', 'd50', 'ts'] as const;
export type FigureName = (typeof FIGURES)[number];

/** Octaves from 63 Hz to 8 kHz. */
export const FIGURE_OCTAVES: Band[] = octaveBands(1, 60, 8100);

/** Early-to-late figures need the noise this far below the whole. */
const EARLY_LATE_NEEDS_DB = 15;

/**
 * Room-acoustic figures of one impulse response in octaves. The response is parted in time before it is filtered, so that no
 * filter rings across the limit of early and late (ISO 3382-1:2009, A.2).
 * @param endS seconds after the response's zero beyond which it holds no decay (it was faded out there); its end when absent
 * @returns one entry per octave of `bands`; null for a response of zeros
 */
export function roomFigures(
  impulse: ImpulseResponse,
  bands: Band[] = FIGURE_OCTAVES,
  endS?: (band: Band) => number | null,
): OctaveFigures[] | null {
  const { samples, rate, zero } = impulse;
  const arrival = findArrival(impulse);
  if (!arrival) return null;
  const start = zero + Math.round(arrival.onsetS * rate);
  const heard = bandSignals(samples, bands, rate);
  return bands.map((band, b) => {
    const known = endS?.(band) ?? null;
    const end = known === null ? samples.length : Math.min(samples.length, zero + Math.round(known * rate));
    const filtered = heard[b]!;
    const decay = findDecay(filtered, rate, { start, end, slowestHz: band.from });
    const none: Found = { found: false, rangeDb: 0, needsDb: EARLY_LATE_NEEDS_DB };
    if (!decay)
      return { edt: none, t20: none, t30: none, c50: none, c80: none, d50: none, ts: none, rangeDb: 0 };
    const kneeIndex = Math.min(end, start + Math.round(decay.kneeS * rate));
    const early = (limitS: number) =>
      earlyLate(samples, band, rate, start, start + Math.round(limitS * rate), kneeIndex);
    const judge = (value: number): Found =>
      decay.rangeDb < EARLY_LATE_NEEDS_DB || !Number.isFinite(value)
        ? { found: false, rangeDb: decay.rangeDb, needsDb: EARLY_LATE_NEEDS_DB }
        : { found: true, value };
    const [at50, at80] = [early(0.05), early(0.08)];
    return {
      edt: reverberation(decay, 'EDT'),
      t20: reverberation(decay, 'T20'),
      t30: reverberation(decay, 'T30'),
      c50: judge(10 * Math.log10(at50.early / at50.late)),
      c80: judge(10 * Math.log10(at80.early / at80.late)),
      d50: judge(at50.early / (at50.early + at50.late)),
      ts: judge(centreTime(filtered, rate, start, kneeIndex)),
      rangeDb: decay.rangeDb,
    };
  });
}

/** A little ahead of the onset belongs to the direct sound. */
const AHEAD_S = 0.002;

function earlyLate(
  samples: ImpulseResponse['samples'],
  band: Band,
  rate: number,
  start: number,
  limit: number,
  end: number,
): { early: number; late: number } {
  const from = Math.max(0, start - Math.round(AHEAD_S * rate));
  return {
    early: octaveEnergy(samples.slice(from, Math.min(limit, end)), band, rate),
    late: limit < end ? octaveEnergy(samples.slice(limit, end), band, rate) : 0,
  };
}

/** Centre of gravity of the squared response after its onset, seconds. */
function centreTime(filtered: Float64Array, rate: number, start: number, end: number): number {
  let [moment, energy] = [0, 0];
  for (let i = start; i < end; i++) {
    const e = filtered[i]! ** 2;
    energy += e;
    moment += (e * (i - start)) / rate;
  }
  return moment / energy;
}

/** A figure over several spots. */
export interface FigureOverSpots {
  mean: number;
  /** standard deviation over the spots; 0 for one */
  spread: number;
  /** spots that have it, and all */
  count: number;
  of: number;
  /** where no spot has it: the most range that there is, and what it needs, dB */
  missing: { rangeDb: number; needsDb: number } | null;
}

/** Mean and spread of one octave's figure over spots; spots without it do not count. */
export function overSpots(list: Found[]): FigureOverSpots {
  const values = list.flatMap((f) => (f.found ? [f.value] : []));
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const spread = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
  const lacking = list.flatMap((f) => (f.found ? [] : [f]));
  return {
    mean,
    spread,
    count: values.length,
    of: list.length,
    missing:
      values.length > 0 || lacking.length === 0
        ? null
        : lacking.reduce((a, b) => (b.rangeDb > a.rangeDb ? b : a)),
  };
}
