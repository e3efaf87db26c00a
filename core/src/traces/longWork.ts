import { excessPhasePart, minimumPhasePart } from './arithmetic.js';
import type { LibraryCurve, TraceWindow } from './libraryCurve.js';
import { windowedCurve } from './windowedCurve.js';

/** What takes too long to be computed while a hand moves. */
export type LongWork =
  | { op: 'minimum phase' | 'excess phase'; curve: LibraryCurve }
  | { op: 'window'; curve: LibraryCurve; window: TraceWindow };

/** @throws RangeError for a curve of which it cannot be computed */
export function workOut(work: LongWork): LibraryCurve {
  switch (work.op) {
    case 'minimum phase':
      return minimumPhasePart(work.curve);
    case 'excess phase':
      return excessPhasePart(work.curve);
    case 'window':
      return windowedCurve(work.curve, work.window);
  }
}
