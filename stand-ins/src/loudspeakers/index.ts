/** Loudspeakers that the simulated rig can play; all invented. */
export {
  modelOf,
  MODELS,
  CORMORANT_18,
  DUNLIN_6,
  EIDER_10,
  PLOVER_6,
  SANDERLING_5,
  TERN_12,
} from './models.js';
export { RADIATING, radiatingOf } from './radiating.js';
