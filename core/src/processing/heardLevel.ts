import { powerOnGrid } from '../measure/index.js';
import { sumPathsInTime } from '../path/index.js';
import { outputSource, type PlayedOutput } from './bass.js';

/** Power at a point of what several outputs make of one sound together, each predicted from its samples; on a grid (Hz). */
export const heardLevel = (outputs: PlayedOutput[], grid: Float64Array): Float64Array =>
  powerOnGrid(sumPathsInTime(outputs.map(outputSource)), grid);
