import { ANGLE_STEP_DEG, ANGLES, layerGain, type Layer } from './balloon.js';

/** The solid angle that each angle off the axis stands for, over 4 pi: its ring on the sphere. */
const ringShare = (i: number): number => {
  const edge = (deg: number) => Math.cos((Math.max(0, Math.min(180, deg)) * Math.PI) / 180);
  const [from, to] = [(i - 0.5) * ANGLE_STEP_DEG, (i + 0.5) * ANGLE_STEP_DEG];
  return (edge(from) - edge(to)) / 2;
};

/** How much more goes along the axis than on the mean over all directions, dB (directivity index). */
export function directivityIndexDb({ abouts, re, im }: Layer): number {
  let mean = 0;
  for (let i = 0; i < ANGLES; i++) {
    let ring = 0;
    for (let j = 0; j < abouts; j++) ring += re[i * abouts + j]! ** 2 + im[i * abouts + j]! ** 2;
    mean += (ringShare(i) * ring) / abouts;
  }
  return -10 * Math.log10(mean);
}

/** Level in one plane through the axis against that on it, dB, each degree from -180 to 180: to its left, or upwards, where positive. */
export function polarDb(
  layer: Layer,
  plane: 'horizontal' | 'vertical',
): { deg: Float64Array; db: Float64Array } {
  const deg = Float64Array.from({ length: 361 }, (_, i) => i - 180);
  const db = deg.map((d) => {
    const [c, s] = [Math.cos((d * Math.PI) / 180), Math.sin((d * Math.PI) / 180)];
    const { re, im } = plane === 'horizontal' ? layerGain(layer, c, s, 0) : layerGain(layer, c, 0, s);
    return 10 * Math.log10(re * re + im * im + 1e-12);
  });
  return { deg, db };
}

/**
 * Degrees between the two directions nearest to the axis in which a loudspeaker is 6 dB down, in one plane (IEC 60268-5); 360
 * where it is nowhere.
 */
export function beamwidthDeg(layer: Layer, plane: 'horizontal' | 'vertical'): number {
  const { db } = polarDb(layer, plane);
  const side = (way: 1 | -1): number => {
    for (let d = 1; d <= 180; d++) {
      const [before, now] = [db[180 + way * (d - 1)]!, db[180 + way * d]!];
      if (now <= -6) return d - 1 + (before + 6) / (before - now);
    }
    return 180;
  };
  return side(1) + side(-1);
}
