import {
  axisTrace,
  beamwidthDeg,
  directivityIndexDb,
  isWithinData,
  layerGain,
  polarDb,
  radiationLayer,
  type Layer,
  type RadiatingModel,
} from '../directivity/index.js';
import { THIRDS } from './bands.js';

/** How a loudspeaker radiates, as it is looked at; NaN where its data do not reach. */
export interface RadiationView {
  /** middles of thirds of an octave, Hz */
  frequency: Float64Array;
  /** degrees between the directions in which it is 6 dB down; 360 where it is nowhere */
  beamwidthDeg: { horizontal: Float64Array; vertical: Float64Array };
  /** dB */
  indexDb: Float64Array;
  /** dB against its axis, each degree from -180 to 180, per third */
  polars: { horizontal: Float64Array[]; vertical: Float64Array[] };
  /** dB against its axis, every `BALLOON_STEP_DEG` from the axis and about it, `[third][angle * abouts + about]` */
  balloons: Float32Array[];
  /** on its axis at 1 m, dB SPL for a sine of full scale, at each third */
  axisDb: Float64Array;
}

/** Step of a balloon as it is looked at, degrees: rows from the axis to behind it, and about it from its left upwards. */
export const BALLOON_STEP_DEG = 5;

/** A layer as it is looked at: levels at steps that the eye can tell apart. */
function balloonDb(layer: Layer): Float32Array {
  const [rows, abouts] = [180 / BALLOON_STEP_DEG + 1, 360 / BALLOON_STEP_DEG];
  return Float32Array.from({ length: rows * abouts }, (_, n) => {
    const angle = (Math.floor(n / abouts) * BALLOON_STEP_DEG * Math.PI) / 180;
    const about = ((n % abouts) * BALLOON_STEP_DEG * Math.PI) / 180;
    const s = Math.sin(angle);
    const { re, im } = layerGain(layer, Math.cos(angle), s * Math.cos(about), s * Math.sin(about));
    return 10 * Math.log10(re * re + im * im + 1e-12);
  });
}

/** All that is shown of how a model radiates. @param speed of sound, m/s */
export function radiationView({ radiation, axis, largestDb }: RadiatingModel, speed: number): RadiationView {
  const frequency = Float64Array.from(THIRDS);
  const layers = THIRDS.map((f) => radiationLayer(radiation, f, speed));
  const ahead = axisTrace(axis, frequency);
  const isKnown = (f: number) => radiation.kind === 'ways' || isWithinData(radiation.data, f);
  const over = (of: (layer: Layer) => number) =>
    Float64Array.from(layers, (l) => (isKnown(l.frequency) ? of(l) : NaN));
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
    balloons: layers.map(balloonDb),
    axisDb: ahead.re.map((re, i) => largestDb + 10 * Math.log10(re * re + ahead.im[i]! ** 2)),
  };
}
