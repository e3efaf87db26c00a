/** One signal path: source, filters, gain, delay, polarity, and any number of them summed at a point. */
export { fineSpectrum, responseAt } from './responseAt.js';
export { sectionAtRate, type SectionAtRate } from './sectionAtRate.js';
export { allPassAsSection, allPassTurn, allPassTurns, type AllPassSection } from './allPass.js';
export {
  addLevel,
  sectionBiquad,
  SECTION_KINDS,
  sectionsLevelDb,
  SHAPING_KINDS,
  type Section,
  type SectionKind,
  type ShapingKind,
} from './section.js';
export {
  CROSSOVER_KINDS,
  CROSSOVER_ORDERS,
  crossoverBiquads,
  type CrossoverFilter,
  type CrossoverKind,
} from './crossover.js';
export {
  exchangeTrace,
  inSeries,
  pathGain,
  pathTrace,
  signalPath,
  throughFilters,
  type SignalPath,
} from './signalPath.js';
export { sumPaths, sumPathsAtPoints, sumPathsInTime, type PathSource } from './sumPaths.js';
export { headroomOf, largestOfSum, type Headroom, type LargestTone } from './headroom.js';
