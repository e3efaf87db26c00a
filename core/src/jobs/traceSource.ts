import type { SubSetting } from '../processing/index.js';

/** What a microphone adds to what it hears, dB over Hz. */
export interface MicrophoneError {
  id: string;
  frequency: number[];
  levelDb: number[];
}

/** A stored response, and how it is to be seen: through which microphone's file, and at which level. */
export interface TraceRef {
  arrayId: string;
  calibration: MicrophoneError | null;
  /** added to its level, dB */
  gainDb: number;
}

/** Several subwoofers as one, each with a setting of its own. */
export interface TraceSum {
  parts: { trace: TraceRef; setting: SubSetting }[];
}

export type TraceSource = TraceRef | TraceSum;

/** Names a source so that what was worked out of it can be found again. */
export const sourceKey = (source: TraceSource): string =>
  'parts' in source
    ? source.parts.map(({ trace, setting }) => `${sourceKey(trace)} ${JSON.stringify(setting)}`).join(' + ')
    : `${source.arrayId} ${source.calibration?.id ?? '-'} ${source.gainDb.toFixed(2)}`;
