/** What surfaces are made of, and what they swallow and scatter. */
export {
  FOLDED as FOLDED_SCATTERING,
  MATERIALS,
  SEATS as SEATS_SCATTERING,
  USUAL_SCATTERING,
  type Material,
} from './library.js';
export { readMaterials, writeMaterials, type ReadMaterial } from './materialText.js';
