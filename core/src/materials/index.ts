/** What surfaces are made of, and what they swallow and scatter. */
export { MATERIALS, USUAL_SCATTERING, type Material } from './library.js';
export { readMaterials, writeMaterials, type ReadMaterial } from './materialText.js';
