import { airAbsorption, type Air } from '../room/index.js';
import { MIDDLE_OCTAVES, Tracer, type Scene } from '../tracing/index.js';
import type { RunPart } from './readReceiver.js';

const MIDDLE_HZ = [500, 1000, 2000];
/** Nearer than this nobody stands to a source, metres. */
const NEAREST_M = 0.1;

/**
 * Level of the direct sound of a source at points, its octaves of 500 Hz to 2 kHz together, dB against the same at 1 m on the mean over
 * all directions, with what the air swallows.
 * @param points x y z of each @returns -Infinity where a face stands between
 */
export function directLevels(
  scene: Scene,
  { source, powerDb }: Pick<RunPart, 'source' | 'powerDb'>,
  air: Air,
  points: Float64Array,
): Float64Array {
  const tracer = new Tracer(scene);
  const { x, y, z } = source.position;
  const shares = MIDDLE_OCTAVES.map((o) => 10 ** (powerDb[o]! / 10));
  const all = shares.reduce((a, b) => a + b, 0);
  const perM = MIDDLE_HZ.map((hz) => (airAbsorption(hz, air) * Math.LN10) / 10);
  const sent = new Float64Array(8).fill(1);
  return Float64Array.from({ length: points.length / 3 }, (_, i) => {
    const [px, py, pz] = [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!];
    const away = Math.max(NEAREST_M, Math.hypot(px - x, py - y, pz - z));
    if (!tracer.isFree(x, y, z, px, py, pz)) return -Infinity;
    if (source.emission) source.emission((px - x) / away, (py - y) / away, (pz - z) / away, sent);
    const energy = MIDDLE_OCTAVES.reduce(
      (sum, o, k) => sum + (shares[k]! * sent[o]! * Math.exp(-perM[k]! * away)) / all,
      0,
    );
    return 10 * Math.log10(energy / away ** 2);
  });
}
