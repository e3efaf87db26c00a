import { dot, meanPoint, minus } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';
import { patternFrom, PATTERN_DIRECTIONS, type GroupPattern } from './groupPattern.js';
import type { PlacedBox } from './levelMap.js';

/** One box as it was measured in the open, from one distance: ahead of it and behind it. */
export interface MeasuredBox {
  /** Hz, ascending */
  frequency: Float64Array;
  ahead: { re: Float64Array; im: Float64Array };
  behind: { re: Float64Array; im: Float64Array };
}

/**
 * The pattern of boxes that are alike and were measured: what each gives in a direction is the first-order pattern through what
 * was measured ahead and behind, (a + b) / 2 + (a - b) / 2 cos(angle), as a source that is small against the wavelength gives it.
 * @param aimDeg azimuth of the group's front @param speed m/s
 * @throws RangeError for curves of unlike length
 */
export function measuredPattern(
  boxes: readonly PlacedBox[],
  aimDeg: number,
  { frequency, ahead, behind }: MeasuredBox,
  speed: number,
): GroupPattern {
  needWithin('measuredPattern', 'speed of sound in m/s', speed, 200, 500);
  for (const of of [ahead.re, ahead.im, behind.re, behind.im])
    if (of.length !== frequency.length)
      throw new RangeError('measuredPattern: ahead and behind have other frequencies');
  const centre = meanPoint(boxes.map((b) => b.position));
  const all = Array.from(frequency, () => new Float64Array(PATTERN_DIRECTIONS));
  for (let i = 0; i < PATTERN_DIRECTIONS; i++) {
    const angle = ((aimDeg + i - 180) * Math.PI) / 180;
    const there = { x: Math.cos(angle), y: Math.sin(angle), z: 0 };
    const heard = boxes.map(({ position, axes, delayMs, inverted }) => ({
      turn: dot(axes.ahead, there),
      aheadS: dot(minus(position, centre), there) / speed - delayMs / 1000,
      sign: inverted ? -1 : 1,
    }));
    frequency.forEach((f, n) => {
      let [re, im] = [0, 0];
      for (const { turn, aheadS, sign } of heard) {
        const [front, rear] = [(sign * (1 + turn)) / 2, (sign * (1 - turn)) / 2];
        const [x, y] = [
          front * ahead.re[n]! + rear * behind.re[n]!,
          front * ahead.im[n]! + rear * behind.im[n]!,
        ];
        const phase = 2 * Math.PI * f * aheadS;
        const [c, s] = [Math.cos(phase), Math.sin(phase)];
        re += x * c - y * s;
        im += x * s + y * c;
      }
      all[n]![i] = levelOf(re, im);
    });
  }
  const alone = Float64Array.from(frequency, (_, n) => levelOf(ahead.re[n]!, ahead.im[n]!));
  return patternFrom(frequency, all, alone);
}

const levelOf = (re: number, im: number) => 20 * Math.log10(Math.hypot(re, im) + 1e-30);
