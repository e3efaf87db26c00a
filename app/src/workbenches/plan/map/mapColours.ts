import type { LevelGrid } from '@pebble-hall/core/coverage';
import type { MadeMaps } from './makeMaps';

type Rgb = readonly [number, number, number];
/** From quiet to loud: lightness runs one way, so that eyes that tell no colours see it too. */
const RAMPS: Record<'light' | 'dark', readonly Rgb[]> = {
  light: [
    [248, 246, 239],
    [206, 226, 219],
    [126, 182, 172],
    [44, 126, 120],
    [14, 70, 74],
  ],
  dark: [
    [33, 39, 42],
    [30, 66, 70],
    [38, 118, 114],
    [104, 184, 172],
    [214, 246, 236],
  ],
};

/** From B louder to A louder, over neither: two hues that all eyes tell apart, and lightness that says how much. */
const TWO_SIDED: typeof RAMPS = {
  light: [
    [148, 62, 16],
    [222, 148, 100],
    [247, 244, 238],
    [112, 176, 168],
    [14, 88, 88],
  ],
  dark: [
    [248, 170, 120],
    [150, 84, 44],
    [38, 43, 46],
    [44, 116, 112],
    [140, 222, 208],
  ],
};

export function colourAt(share: number, scheme: 'light' | 'dark', isTwoSided: boolean): Rgb {
  const ramp = (isTwoSided ? TWO_SIDED : RAMPS)[scheme];
  const at = Math.max(0, Math.min(1, share)) * (ramp.length - 1);
  const low = Math.min(ramp.length - 2, Math.floor(at));
  return [0, 1, 2].map((k) =>
    Math.round(ramp[low]![k]! + (at - low) * (ramp[low + 1]![k]! - ramp[low]![k]!)),
  ) as unknown as Rgb;
}

/**
 * The range of a map, dB: eight steps of 3 dB down from its loudest; of a difference four to either side. An upright plane may go
 * through loudspeakers: there the loudest twentieth of it does not count.
 */
export interface Scale {
  least: number;
  most: number;
  isTwoSided: boolean;
}
export const STEP_DB = 3;
const STEPS = 8;

const LOUDEST_SHARE = 0.05;

export function scaleOf({ levels, grid: { isIn, frame }, isDifference }: MadeMaps): Scale | null {
  const seen = levels.filter((v, i) => isIn[i] === 1 && v > -Infinity).sort();
  const left = frame.along.z === 0 ? 0 : Math.floor(LOUDEST_SHARE * seen.length);
  const most = seen[seen.length - 1 - left] ?? -Infinity;
  if (!Number.isFinite(most)) return null;
  const half = (STEPS * STEP_DB) / 2;
  if (isDifference) return { least: -half, most: half, isTwoSided: true };
  const top = STEP_DB * Math.ceil(most / STEP_DB);
  return { least: top - STEPS * STEP_DB, most: top, isTwoSided: false };
}

/** A map as a picture, a pixel for each point, the last row on top. */
export function pictureOf(
  levels: Float64Array,
  { columns, rows, isIn }: LevelGrid,
  { least, most, isTwoSided }: Scale,
  scheme: 'light' | 'dark',
): string {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [columns, rows];
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(columns, rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const n = r * columns + c;
      if (!isIn[n]) continue;
      const rgb = colourAt((levels[n]! - least) / (most - least), scheme, isTwoSided);
      image.data.set([...rgb, 255], 4 * ((rows - 1 - r) * columns + c));
    }
  context.putImageData(image, 0, 0);
  return canvas.toDataURL();
}
