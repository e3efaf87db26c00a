import { CALIBRATOR_HOLD_S, type CalibratorReading } from '@pebble-hall/core/level';
import type { LevelCalibration } from '@pebble-hall/core/project';
import { formatHz } from '../../../charts/chartMath';

/** A reading as one sentence. */
export function calibratorSentence(reading: CalibratorReading): string {
  switch (reading.state) {
    case 'waiting':
      return 'Waiting for the tone: put the calibrator on the microphone and switch it on.';
    case 'settling':
      return `1 kHz found, holding still: ${reading.heldS.toFixed(1)} of ${CALIBRATOR_HOLD_S} s.`;
    case 'stable':
      return `Stable at ${reading.levelDb.toFixed(2).replace('-', '\u2212')} dB re full scale, ${reading.frequency.toFixed(1)} Hz, within ${Math.max(0.01, reading.rangeDb).toFixed(2)} dB.`;
    case 'refused':
      return problemSentence(reading.problem);
  }
}

function problemSentence(problem: Extract<CalibratorReading, { state: 'refused' }>['problem']): string {
  switch (problem.kind) {
    case 'no tone':
      return 'No steady tone, only other sound. Is the calibrator on, and on this microphone?';
    case 'wrong frequency':
      return `The tone is at ${formatHz(problem.frequency)}, not at 1 kHz: this is another calibrator, or another sound.`;
    case 'clipped':
      return 'The input clips: turn its gain down, type the new gain beside the microphone, and begin again.';
    case 'unsteady':
      return `The tone swings by ${problem.rangeDb.toFixed(1)} dB: press the calibrator on until it sits tight, and look at its battery.`;
    case 'noise':
      return problem.low
        ? 'Low rumble beside the tone, as from a hand on the microphone: lay both down and let go.'
        : `Noise only ${Math.round(problem.belowDb)} dB below the tone: see whether the calibrator sits tight.`;
  }
}

/** What the two levels of the calibrator say of the input: "114 reads 113.9: linear within 0.1 dB". */
export function linearitySentence({ linearity }: Pick<LevelCalibration, 'linearity'>): string | null {
  if (!linearity) return null;
  const reads = (linearity.nominalDb + linearity.offDb).toFixed(1);
  const off = Math.abs(linearity.offDb);
  return off <= 0.25
    ? `${linearity.nominalDb} reads ${reads}: linear within ${Math.max(0.1, Math.ceil(10 * off - 1e-9) / 10).toFixed(1)} dB.`
    : `${linearity.nominalDb} reads ${reads}: the input is not linear. Look for a limiter, a pad, or browser processing.`;
}

export function driftSentence({ driftDb }: Pick<LevelCalibration, 'driftDb'>): string | null {
  if (driftDb === null) return null;
  const size = Math.abs(driftDb).toFixed(2);
  return Math.abs(driftDb) < 0.5
    ? `${size} dB from the calibration before.`
    : `${size} dB from the calibration before: more than a microphone drifts. Was a gain touched?`;
}
