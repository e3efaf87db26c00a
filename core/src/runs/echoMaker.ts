import { ECHO_SIGNALS, type EchoCriterion, type EchoSignal } from '../acoustics/index.js';
import { BIN_S, energyOverTime, type Heard } from '../tracing/index.js';

/** The way of sound that makes an echo. */
export interface EchoMaker {
  laterS: number;
  /** faces that it met, in order, by their index */
  faces: readonly number[];
}

/** The octave that is looked at: 1 kHz. */
const OCTAVE = 4;
/** No echo is earlier than this, seconds. */
const EARLIEST_S = 0.02;
/** The way must bring so much of all that arrives around it, within so many milliseconds. */
const [LEAST_SHARE, AROUND] = [0.4, 3];

/** The single way that an echo criterion is largest for; null where many bring it together. */
export function echoMaker(heard: Heard, { atS }: EchoCriterion, signal: EchoSignal): EchoMaker | null {
  const { withinS } = ECHO_SIGNALS[signal];
  const near = heard.arrivals.filter(
    (a) => a.laterS > EARLIEST_S && a.laterS > atS - withinS - 0.003 && a.laterS < atS + 0.003,
  );
  if (near.length === 0) return null;
  const most = near.reduce((a, b) => (b.energy[OCTAVE]! > a.energy[OCTAVE]! ? b : a));
  const energy = energyOverTime(heard, OCTAVE);
  const bin = Math.floor(most.laterS / BIN_S);
  let all = 0;
  for (let b = Math.max(0, bin - AROUND); b <= Math.min(energy.length - 1, bin + AROUND); b++)
    all += energy[b]!;
  return most.energy[OCTAVE]! >= LEAST_SHARE * all ? { laterS: most.laterS, faces: most.faces } : null;
}
