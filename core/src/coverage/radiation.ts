import {
  axisTrace,
  beamwidthDeg,
  directivityIndexDb,
  polarDb,
  radiationLayer,
  type RadiatingModel,
} from '../directivity/index.js';
import { THIRDS } from './bands.js';

/** How a loudspeaker radiates, as it is looked at. */
export interface RadiationView {
  /** middles of thirds of an octave, Hz */
  frequency: Float64Array;
  /** degrees between the directions in which it is 6 dB down; 360 where it is nowhere */
  beamwidthDeg: { horizontal: Float64Array; vertical: Float64Array };
  /** dB */
  indexDb: Float64Array;
  /** dB against its axis, each degree from -180 to 180, per third */
  polars: { horizontal: Float64Array[]; vertical: Float64Array[] };
  /** on its axis at 1 m, dB SPL for a sine of full scale, at each third */
  axisDb: Float64Array;
}

/** All that is shown of how a model radiates. @param speed of sound, m/s */
export function radiationView({ radiation, axis, largestDb }: RadiatingModel, speed: number): RadiationView {
  const frequency = Float64Array.from(THIRDS);
  const layers = THIRDS.map((f) => radiationLayer(radiation, f, speed));
  const ahead = axisTrace(axis, frequency);
  const over = (of: (layer: (typeof layers)[number]) => number) => Float64Array.from(layers, of);
  return {
    frequency,
    beamwidthDeg: {
      horizontal: over((l) => beamwidthDeg(l, 'horizontal')),
      vertical: over((l) => beamwidthDeg(l, 'vertical')),
    },
    indexDb: over(directivityIndexDb),
    polars: {
      horizontal: layers.map((l) => polarDb(l, 'horizontal').db),
      vertical: layers.map((l) => polarDb(l, 'vertical').db),
    },
    axisDb: ahead.re.map((re, i) => largestDb + 10 * Math.log10(re * re + ahead.im[i]! ** 2)),
  };
}
