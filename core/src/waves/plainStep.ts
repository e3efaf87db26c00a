import { SIDES } from './roomGrid.js';
import type { FieldStep, Stencil } from './stencil.js';

/** Steps in plain typed arrays, for where there is no WebAssembly. */
export function plainStep(stencil: Stencil): FieldStep {
  const { squares, strides, spans, cell, own, last, beside, counts, cells } = stencil;
  const pressures = [new Float64Array(cells), new Float64Array(cells)] as const;
  const [sx, sy, sz] = squares;
  const [ox, oy] = strides;
  const middle = 2 - 2 * (sx + sy + sz);
  const step = (from: 0 | 1): void => {
    const now = pressures[from];
    const before = pressures[from === 0 ? 1 : 0];
    for (let s = 0; s < spans.length; s += 2)
      for (let i = spans[s]!, end = spans[s + 1]!; i < end; i++)
        before[i] =
          middle * now[i]! +
          sx * (now[i - ox]! + now[i + ox]!) +
          sy * (now[i - oy]! + now[i + oy]!) +
          sz * (now[i - 1]! + now[i + 1]!) -
          before[i]!;
    for (let e = 0, at = 0; e < cell.length; e++, at += SIDES) {
      const i = cell[e]!;
      before[i] =
        own[e]! * now[i]! +
        counts[at]! * now[beside[at]!]! +
        counts[at + 1]! * now[beside[at + 1]!]! +
        counts[at + 2]! * now[beside[at + 2]!]! +
        counts[at + 3]! * now[beside[at + 3]!]! +
        counts[at + 4]! * now[beside[at + 4]!]! +
        counts[at + 5]! * now[beside[at + 5]!]! -
        last[e]! * before[i]!;
    }
  };
  return { pressures, step };
}
