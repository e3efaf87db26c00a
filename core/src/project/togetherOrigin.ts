import type { SourceSetting } from '../alignment/index.js';
import type { Point } from '../geometry/index.js';
import type { MemoryStamp } from './sweeps.js';

/** A channel that played with others, and how it was set. */
export interface PlayedPart {
  loudspeakerId: string;
  name: string;
  as: SourceSetting;
}

/** Of a trace that is several channels at once, swept as they were set. */
export interface TogetherOrigin {
  by: 'together';
  parts: PlayedPart[];
  spotId: string;
  spotName: string;
  position: Point;
  /** of a channel without gain of its own, dBFS */
  levelDbfs: number;
  microphoneId: string;
  /** name of the microphone's file; null for none */
  calibration: string | null;
  memory: MemoryStamp;
  rigName: string;
  temperatureC: number;
}
