import type { Corner, Point } from '../geometry/index.js';
import { needAbove } from '../limits/index.js';
import { planModes, planPressure, type PlanModes } from './planModes.js';

/** A standing wave of a room with upright walls, a level floor and a level ceiling. */
export interface ShapeMode {
  hz: number;
  /** half waves upright */
  upright: number;
  /** of the plan, by its number there; 0 is even over it */
  plan: number;
}

/** Modes of a room of any outline, lowest first, with what they are made of. */
export interface ShapeModes {
  list: ShapeMode[];
  plan: PlanModes;
  heightM: number;
  /** up to here all of them are there, Hz: less than asked for where that needs more than is worked out */
  toHz: number;
}

/**
 * Modes of a room with hard upright walls, a level floor and ceiling, and any outline: those of the plan, each with as many half
 * waves upright as the frequency lets. For a box they are those of `boxModes`.
 * @param outline metres @param speed m/s
 * @throws RangeError for an outline that encloses nothing, or heights and speeds that are none
 */
export function shapeModes(
  outline: readonly Corner[],
  heightM: number,
  speed: number,
  toHz: number,
): ShapeModes {
  needAbove('shapeModes', 'height in m', heightM, 0);
  needAbove('shapeModes', 'speed of sound in m/s', speed, 0);
  needAbove('shapeModes', 'highest frequency in Hz', toHz, 0);
  const turn = (2 * Math.PI) / speed;
  const plan = planModes(outline, turn * toHz);
  const reached = plan.upTo / turn;
  const list: ShapeMode[] = [];
  plan.modes.forEach(({ waveNumber }, p) => {
    for (let n = 0; ; n++) {
      const hz = Math.hypot(waveNumber / turn, (n * speed) / (2 * heightM));
      if (hz > reached) break;
      if (p + n > 0) list.push({ hz, upright: n, plan: p });
    }
  });
  return { list: list.sort((a, b) => a.hz - b.hz), plan, heightM, toHz: reached };
}

/** Pressure of a mode at a place, -1 to 1. @param at with its height over the floor, metres */
export function shapeModePressure({ plan, heightM }: ShapeModes, mode: ShapeMode, at: Point): number {
  const level = planPressure(plan, plan.modes[mode.plan]!.shares, at);
  return level * Math.cos((mode.upright * Math.PI * at.z) / heightM);
}
