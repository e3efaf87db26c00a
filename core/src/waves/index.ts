/** Sound as waves in a room of any shape: finite differences for its lows. */
export { admittanceOf, swallowedBy } from './admittance.js';
export { boxWaves, type WaveSource } from './boxWaves.js';
export { cellAt, roomGrid, type NoGrid, type RoomGrid } from './roomGrid.js';
export { halfWaves, isInRoom, waveModePressure, waveModeSteps, type WaveModes } from './waveModes.js';
export { waveField, waveSteps, type WaveResponses } from './waveField.js';
