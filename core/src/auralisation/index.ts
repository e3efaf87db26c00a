/** Listening: material of our own, hearing a room, matched loudness, and what chance would give in a blind trial. */
export { chanceOf } from './binomial.js';
export { pluck, pluckedStrings } from './pluckedStrings.js';
export { auralise, matchLoudness, safeGain, type Matched, type Way } from './auralise.js';
export {
  candidateLevels,
  RENDER_RATE,
  renderCandidates,
  renderResponses,
  type CandidateOutput,
  type Rendered,
  type RenderRequest,
} from './renderCandidates.js';
export { listeningMaterial, type NoiseBand } from './listeningMaterial.js';
