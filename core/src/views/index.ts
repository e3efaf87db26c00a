/** Ways of looking at measured responses: delay, time, decay, and what stands out. */
export { excessGroupDelay, groupDelay, minimumPhaseOf, unwrappedPhase } from './groupDelay.js';
export { energyTimeDb, stepResponse, timeCurves, type TimeCurves } from './timeCurves.js';
export { windowedLevelDb, windowedPhaseDeg, type FrequencyWindow } from './frequencyWindow.js';
export { beforeAndAfter, type BeforeAfter } from './beforeAfter.js';
export { decayMap, type DecayMap, type DecayMapRequest } from './decayMap.js';
export { findResonances, ringingS, type Resonance } from './resonances.js';
export { findReflections, type Reflection } from './reflections.js';
export { findCorners, type Corners } from './corners.js';
export { peaksAndDips, type Feature } from './peaksAndDips.js';
