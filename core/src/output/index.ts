/** An output of a processor: what it does, what changes, what is to be expected of it. */
export { outputBiquads, outputSpectrum, plainOutput, type OutputSettings } from './settings.js';
export { predictOutput } from './predictOutput.js';
export { crossoverText, settingChanges, type SettingChange } from './changes.js';
export { buildOutputs, type BuiltOutputs, type OutputCorrection, type OutputSteps } from './buildOutputs.js';
export { sumImpulses } from './sumImpulses.js';
