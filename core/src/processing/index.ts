/** An output of a processor: what it does, what changes, what is to be expected of it. */
export {
  outputBiquads,
  outputSpectrum,
  plainOutput,
  type BassFeed,
  type OutputSettings,
} from './settings.js';
export { drivesOf, feedSpectrum, throughFeed, type Drive } from './bass.js';
export { playedSpan } from './playedSpan.js';
export { predictOutput } from './predictOutput.js';
export { crossoverText, feedText, settingChanges, type SettingChange } from './changes.js';
export {
  buildOutputs,
  LOW_CHANNEL,
  type BuildOptions,
  type BuiltOutputs,
  type OutputCorrection,
  type OutputSteps,
} from './buildOutputs.js';
export { sumImpulses } from './sumImpulses.js';
