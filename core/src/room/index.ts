/** Rooms as models: air, boxes, image sources, loudspeakers, modes. */
export { airAbsorption, speedOfSound, type Air } from './air.js';
export { OCTAVES, octaveShares, type PerOctave } from './octaves.js';
export { checkBox, volumeOf, type BoxRoom } from './box.js';
export { boxArrivals, visitImages, type ImageArrival } from './imageSources.js';
export { loudspeakerSections, loudspeakerSpectrum, type LoudspeakerModel } from './loudspeaker.js';
export { facetArrivals, type FacetArrival, type ReflectingFacet } from './facetImages.js';
export { facetOrder } from './facetOrder.js';
export { roomStatistics, shortenedBy, type RoomStatistics } from './statistics.js';
export { boxModes, modePressure, type BoxMode } from './modes.js';
export { planModes, planPressure, type PlanMode, type PlanModes } from './planModes.js';
export { shapeModePressure, shapeModes, type ShapeMode, type ShapeModes } from './shapeModes.js';
export { addImpulse } from './addImpulse.js';
export { joinOctaves, type Lows } from './joinOctaves.js';
export { tuneAbsorption, type Tuned } from './tuneAbsorption.js';
