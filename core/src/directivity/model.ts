import { loudspeakerSections, type LoudspeakerModel } from '../room/index.js';
import { biquadTrace, interpolateLog, minimumPhaseOfLog, type ComplexTrace } from '../signal/index.js';
import { layerOf, type Layer, type Way } from './balloon.js';
import { isWithinData, layerOfData, type BalloonData } from './balloonData.js';

/** A level over frequency. */
export interface LevelCurve {
  /** Hz, ascending */
  frequency: Float64Array;
  levelDb: Float64Array;
}

/** In which directions a loudspeaker sends how much: worked out from its ways, or as data say. */
export type Radiation = { kind: 'ways'; ways: Way[] } | { kind: 'data'; data: BalloonData };

/**
 * What a loudspeaker does on its axis, 0 dB within its band: filters of its band and its resonances, or a curve, whose phase is
 * taken as the least that its level asks for; nothing is known beyond the ends of a curve, and it is silent there.
 */
export type AxisResponse =
  | ({ kind: 'filters' } & Pick<LoudspeakerModel, 'low' | 'high' | 'resonances'>)
  | ({ kind: 'curve' } & LevelCurve);

/** A loudspeaker as it radiates: its response on its axis, its directivity, and how loud it gets. */
export interface RadiatingModel {
  name: string;
  /** what it is taken for, in words: radiators and what stands between them, or where its data come from */
  about: string;
  axis: AxisResponse;
  radiation: Radiation;
  /** dB SPL on its axis at 1 m within its band for a sine at full scale, its amplifier set to that */
  largestDb: number;
  /** dB SPL at 1 m for 2.83 V */
  sensitivityDb: number;
}

/** The rate at which sections of a loudspeaker are evaluated: far above hearing, where they are as analog ones. */
const ANALOG_RATE = 384_000;

export const radiationLayer = (radiation: Radiation, frequency: number, speed: number): Layer =>
  radiation.kind === 'ways'
    ? layerOf(radiation.ways, frequency, speed)
    : layerOfData(radiation.data, frequency);

/** Response on axis at some frequencies, against that within its band. */
export function axisTrace(axis: AxisResponse, frequency: Float64Array): ComplexTrace {
  if (axis.kind === 'filters')
    return biquadTrace(loudspeakerSections(axis, ANALOG_RATE), frequency, ANALOG_RATE);
  const { re, im } = leastPhase(axis);
  const levels = interpolateLog(axis.frequency, axis.levelDb, frequency);
  const trace: ComplexTrace = {
    frequency,
    re: new Float64Array(frequency.length),
    im: new Float64Array(frequency.length),
  };
  frequency.forEach((f, n) => {
    if (!isWithinData(axis, f)) return;
    const at = Math.min(CURVE_BINS - 1.001, f / BIN_HZ);
    const [k, t] = [Math.floor(at), at % 1];
    const phase = Math.atan2((1 - t) * im[k]! + t * im[k + 1]!, (1 - t) * re[k]! + t * re[k + 1]!);
    const size = 10 ** (levels[n]! / 20);
    trace.re[n] = size * Math.cos(phase);
    trace.im[n] = size * Math.sin(phase);
  });
  return trace;
}

const CURVE_BINS = 16_385;
const BIN_HZ = 96_000 / (2 * (CURVE_BINS - 1));
const phases = new WeakMap<Float64Array, { re: Float64Array; im: Float64Array }>();

/** Phase of a curve as a unit vector at each bin; beyond the curve its ends are held, so that they ask for no phase. */
function leastPhase({ frequency, levelDb }: LevelCurve): { re: Float64Array; im: Float64Array } {
  const known = phases.get(levelDb);
  if (known) return known;
  const bins = Float64Array.from({ length: CURVE_BINS }, (_, k) => Math.max(k, 0.5) * BIN_HZ);
  const level = interpolateLog(frequency, levelDb, bins);
  const { re, im } = minimumPhaseOfLog(level.map((db) => (db * Math.LN10) / 20));
  const made = {
    re: re.map((v, k) => v / Math.hypot(v, im[k]!)),
    im: im.map((v, k) => v / Math.hypot(v, re[k]!)),
  };
  phases.set(levelDb, made);
  return made;
}
