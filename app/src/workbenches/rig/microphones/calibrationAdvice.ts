import type { Calibration, Microphone, Pointing } from '@pebble-hall/core/project';
import { interpolateLog, logGrid } from '@pebble-hall/core/signal';
import { INCIDENCE_DEG } from '../../../services/theRig';

/** Angles this close are taken as the same: files are made at 0 and 90 degrees, sometimes 45. */
const SAME_DEG = 20;

export const POINTINGS: { value: Pointing; label: string }[] = [
  { value: 'at the source', label: 'at the source (0°)' },
  { value: 'upright', label: 'upright (90°)' },
  { value: 'on the floor', label: 'on the floor, at the source' },
];

/** Whether a file's angle of incidence fits how the microphone points; null when the file does not say. */
export const anglesFit = (
  { incidenceDeg }: Pick<Calibration, 'incidenceDeg'>,
  pointing: Pointing,
): boolean | null =>
  incidenceDeg === null ? null : Math.abs(incidenceDeg - INCIDENCE_DEG[pointing]) <= SAME_DEG;

/** What is to be said of a microphone and the file that it uses; null when all is well. */
export function calibrationAdvice(microphone: Microphone, files: Calibration[]): string | null {
  const { pointing, serial } = microphone;
  const used = files.find((f) => f.id === microphone.calibrationId);
  const fitting = files.find((f) => anglesFit(f, pointing));
  if (!used) {
    return fitting
      ? `No file is in use, so the microphone’s own errors stay in every trace. ${fitting.name} fits how it points.`
      : 'No file is in use, so the microphone’s own errors stay in every trace.';
  }
  const fits = anglesFit(used, pointing);
  if (fits === false) {
    const wrong = `The file in use is for ${used.incidenceDeg}°, but the microphone points ${pointing} (${INCIDENCE_DEG[pointing]}°)`;
    if (!fitting)
      return `${wrong}: in the highs it will be wrong. Turn the microphone, or load the file for its angle.`;
    const { frequency, levelDb } = largestDifference(used, fitting);
    return `${wrong}: wrong by up to ${Math.abs(levelDb).toFixed(1)} dB at ${(frequency / 1000).toFixed(1)} kHz. Use ${fitting.name}.`;
  }
  if (used.serial && serial && used.serial !== serial)
    return `The file is of serial ${used.serial}, the microphone has ${serial}: each one is different.`;
  if (fits === null)
    return 'The file does not say for which angle it is; most are for 0°, pointing at the source.';
  return null;
}

const grid = logGrid(20, 20000, 12);
const curve = ({ frequency, levelDb }: Calibration) =>
  interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), grid);

export function largestDifference(a: Calibration, b: Calibration): { frequency: number; levelDb: number } {
  const [x, y] = [curve(a), curve(b)];
  let at = 0;
  grid.forEach((_, i) => {
    if (Math.abs(x[i]! - y[i]!) > Math.abs(x[at]! - y[at]!)) at = i;
  });
  return { frequency: grid[at]!, levelDb: x[at]! - y[at]! };
}
