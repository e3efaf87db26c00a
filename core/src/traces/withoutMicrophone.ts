import { gainOfDb, interpolateLog } from '../signal/index.js';
import type { LibraryCurve } from './libraryCurve.js';

/** What a microphone reads over the truth, dB over Hz. */
export interface MicrophoneResponse {
  frequency: number[];
  levelDb: number[];
}

/** A curve without what the microphone adds to it: its level only, as calibration files tell no phase. */
export function withoutMicrophone<C extends Pick<LibraryCurve, 'frequency' | 're' | 'im'>>(
  curve: C,
  { frequency, levelDb }: MicrophoneResponse,
): C {
  const error = interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), curve.frequency);
  const gain = error.map((db) => gainOfDb(-db));
  return {
    ...curve,
    re: curve.re.map((v, n) => gain[n]! * v),
    im: curve.im.map((v, n) => gain[n]! * v),
  };
}
