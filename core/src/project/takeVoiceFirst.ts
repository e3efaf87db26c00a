import type { VoiceHelp } from '../alignment/index.js';
import type { Correction } from './correction.js';
import { inDeviceSteps } from './steps.js';

/**
 * A correction in which loudspeakers get on top what lets the voice lead; in steps that processors have. A talker cannot wait, so nothing is
 * shifted together.
 * @param help gain and delay by the channel's id, delays at least 0
 */
export function takeVoiceFirst(
  correction: Correction,
  help: ReadonlyMap<string, Pick<VoiceHelp, 'gainDb' | 'delayS'>>,
): Correction {
  const next = { ...correction.alignment };
  for (const [id, { gainDb, delayS }] of help) {
    const was = next[id] ?? { trimDb: 0, delayMs: 0, inverted: false };
    next[id] = { ...was, trimDb: was.trimDb + gainDb, delayMs: was.delayMs + 1000 * delayS };
  }
  return {
    ...correction,
    alignment: inDeviceSteps(next),
    madeFrom: { ...correction.madeFrom, levels: null },
  };
}
