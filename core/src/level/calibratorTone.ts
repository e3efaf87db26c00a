import { findClipping } from '../measure/index.js';
import { fftSizeFor, hannWindow, powerOf, realFft, type RealArray } from '../signal/index.js';

/** Why a calibrator's tone is not taken. */
export type CalibratorProblem =
  | { kind: 'no tone' }
  | { kind: 'wrong frequency'; frequency: number }
  | { kind: 'clipped' }
  | { kind: 'unsteady'; rangeDb: number }
  | { kind: 'noise'; belowDb: number; low: boolean };

export type CalibratorReading =
  | { state: 'waiting' }
  | { state: 'settling'; levelDb: number; frequency: number; heldS: number }
  | { state: 'stable'; levelDb: number; frequency: number; rangeDb: number }
  | { state: 'refused'; problem: CalibratorProblem };

/** IEC 60942: 1 kHz; a tone further off than this is another one. */
const NOMINAL_HZ = 1000;
const OFF_HZ = 20;
/** What is not tone must lie this far below it: at 25 dB it adds 0.014 dB. */
const CLEAR_DB = 25;
/** A calibrator holds its level to 0.1 dB (IEC 60942 class 1: 0.07 dB); over this range it is not pressed on well. */
const STEADY_DB = 0.12;
export const CALIBRATOR_HOLD_S = 3;
/** Below this there is nothing that a calibrator could be. */
const FAINTEST_DB = -75;
const FRAME_S = 0.25;

interface Frame {
  toneDb: number;
  frequency: number;
  restDb: number;
  lowDb: number;
  clipped: boolean;
}

/**
 * Watches an input for the steady 1 kHz tone of a level calibrator (IEC 60942:2017): finds its level, says when it has been
 * stable for three seconds, and otherwise why it is not taken. Levels in dB re full scale (RMS 1).
 */
export class CalibratorTone {
  private frames: Frame[] = [];
  private buffer: Float64Array;
  private filled = 0;
  private readonly window: Float64Array;
  private readonly size: number;

  constructor(readonly rate: number) {
    const length = Math.round(FRAME_S * rate);
    this.buffer = new Float64Array(length);
    this.window = hannWindow(length);
    this.size = fftSizeFor(length);
  }

  process(block: RealArray): void {
    for (let i = 0; i < block.length; i++) {
      this.buffer[this.filled++] = block[i]!;
      if (this.filled === this.buffer.length) {
        if (!hasGap(this.buffer, this.rate)) this.frames.push(this.analyse());
        if (this.frames.length > CALIBRATOR_HOLD_S / FRAME_S) this.frames.shift();
        this.filled = 0;
      }
    }
  }

  read(): CalibratorReading {
    const last = this.frames.at(-1);
    if (!last) return { state: 'waiting' };
    if (this.frames.some((f) => f.clipped)) return { state: 'refused', problem: { kind: 'clipped' } };
    const problem = problemOf(last);
    if (problem?.kind === 'no tone' && last.restDb < FAINTEST_DB) return { state: 'waiting' };
    if (problem) return { state: 'refused', problem };
    // held: the frames since the last that was none of this tone
    let from = this.frames.length - 1;
    while (from > 0 && !problemOf(this.frames[from - 1]!)) from--;
    const held = this.frames.slice(from);
    const levels = held.map((f) => f.toneDb);
    const rangeDb = Math.max(...levels) - Math.min(...levels);
    const levelDb = levels.reduce((a, b) => a + b, 0) / levels.length;
    const heldS = held.length * FRAME_S;
    const { frequency } = last;
    if (heldS < CALIBRATOR_HOLD_S - 1e-9)
      return { state: 'settling', levelDb: last.toneDb, frequency, heldS };
    if (rangeDb > STEADY_DB) return { state: 'refused', problem: { kind: 'unsteady', rangeDb } };
    return { state: 'stable', levelDb, frequency, rangeDb };
  }

  private analyse(): Frame {
    const { buffer, window, rate, size } = this;
    let total = 0;
    let weight = 0;
    for (let i = 0; i < buffer.length; i++) {
      total += (buffer[i]! * window[i]!) ** 2;
      weight += window[i]! ** 2;
    }
    total /= weight;
    const power = powerOf(
      realFft(
        buffer.map((v, i) => v * window[i]!),
        size,
      ),
    );
    const bin = rate / size;
    let top = Math.ceil(60 / bin);
    for (let k = top; k < power.length - 1; k++) if (power[k]! > power[top]!) top = k;
    // Hann's main lobe in logarithms is close to a parabola: the peak to a small part of a bin
    const [a, b, c] = [power[top - 1]!, power[top]!, power[top + 1]!].map((p) => Math.log(p + 1e-300)) as [
      number,
      number,
      number,
    ];
    const frequency = (top + (0.5 * (a - c)) / (a - 2 * b + c || 1)) * bin;
    const spread = Math.ceil((3 * size) / buffer.length);
    const scale = 2 / (size * weight);
    let tone = 0;
    for (let k = Math.max(1, top - spread); k <= Math.min(power.length - 1, top + spread); k++)
      tone += power[k]! * scale;
    let low = 0;
    for (let k = 1; k * bin < 300; k++) low += power[k]! * scale;
    const db = (p: number) => 10 * Math.log10(Math.max(p, 1e-20));
    return {
      toneDb: db(tone),
      frequency,
      restDb: db(total - tone),
      lowDb: db(low),
      clipped: findClipping(buffer, rate) !== null,
    };
  }
}

/** Samples that are exactly zero for this long, within sound, were lost on the way. */
const GAP_S = 0.002;

/**
 * Whether sound was lost within a frame. That says nothing about the calibrator, so the frame does not count; digital
 * silence throughout is no gap but the end of the tone.
 */
function hasGap(frame: Float64Array, rate: number): boolean {
  let [run, longest] = [0, 0];
  for (const v of frame) {
    run = v === 0 ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  return longest >= GAP_S * rate && longest < frame.length;
}

function problemOf({ toneDb, frequency, restDb, lowDb }: Frame): CalibratorProblem | null {
  if (toneDb < FAINTEST_DB || toneDb - restDb < 6) return { kind: 'no tone' };
  if (Math.abs(frequency - NOMINAL_HZ) > OFF_HZ) return { kind: 'wrong frequency', frequency };
  if (toneDb - restDb < CLEAR_DB) return { kind: 'noise', belowDb: toneDb - restDb, low: lowDb > restDb - 3 };
  return null;
}
