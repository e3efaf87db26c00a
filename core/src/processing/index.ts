/** An output of a processor: what it does, what changes, what is to be expected of it. */
export { outputBiquads, outputPath, plainOutput, type BassFeed, type OutputSettings } from './settings.js';
export { drivesOf, feedPath, outputSource, type Drive, type PlayedOutput } from './bass.js';
export { playedSpan } from './playedSpan.js';
export { crossoverText, feedText, settingChanges, type SettingChange } from './changes.js';
export {
  buildOutputs,
  guardedPeakDb,
  type BuildOptions,
  type BuiltOutputs,
  type GuardedSignals,
  type OutputCorrection,
} from './buildOutputs.js';
export type {
  LoadRequest,
  MemoryContents,
  MemorySummary,
  OutputChange,
  ProcessorState,
  TransferState,
} from './memory.js';
export { limitsOf, type ProcessorLimits, type ProcessorProfile } from './profile.js';
export { plainSub, subPath, type SubSetting } from './subSetting.js';
export { heardLevel } from './heardLevel.js';
export { FILE_MEMORIES, FILES_ONLY, PROFILES } from './profiles.js';
