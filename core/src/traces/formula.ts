import {
  allPassed,
  averageOfCurves,
  delayRemoved,
  differenceOfCurves,
  excessPhasePart,
  extremeOfCurves,
  inverseOfCurve,
  minimumPhasePart,
  productOfCurves,
  ratioOfCurves,
  splicedCurves,
  sumOfCurves,
  type CurveAverage,
} from './arithmetic.js';
import type { Shape } from '../shapes/index.js';
import { curveOfShapes, type LibraryCurve } from './libraryCurve.js';

/** How a trace is computed from others, named by their ids. */
export type Formula =
  | { op: 'sum' | 'product' | 'largest' | 'smallest'; of: string[] }
  | { op: 'difference' | 'ratio'; of: string[] }
  | { op: 'average'; of: string[]; how: CurveAverage }
  | { op: 'splice'; of: string[]; atHz: number; octaves: number }
  | { op: 'inverse' | 'minimum phase' | 'excess phase'; of: string[] }
  | { op: 'delay removed'; of: string[]; delayS: number }
  | { op: 'all-pass'; of: string[]; hz: number; q: number }
  /** rests on nothing: circuits by their figures */
  | { op: 'shapes'; of: string[]; shapes: Shape[] };

export type FormulaOp = Formula['op'];

/** How many traces a formula takes: at least, at most. */
export const FORMULA_TAKES: Record<FormulaOp, [number, number]> = {
  sum: [2, 32],
  product: [2, 32],
  average: [2, 200],
  largest: [2, 200],
  smallest: [2, 200],
  difference: [2, 2],
  ratio: [2, 2],
  splice: [2, 2],
  inverse: [1, 1],
  'minimum phase': [1, 1],
  'excess phase': [1, 1],
  'delay removed': [1, 1],
  'all-pass': [1, 1],
  shapes: [0, 0],
};

/** @throws RangeError for what cannot be computed: a phase that is not there, frequencies that are not shared */
export function evaluateFormula(formula: Formula, curves: readonly LibraryCurve[]): LibraryCurve {
  const [least, most] = FORMULA_TAKES[formula.op];
  if (curves.length < least || curves.length > most)
    throw new RangeError(
      `evaluateFormula: ${formula.op} takes ${least} to ${most} traces, got ${curves.length}`,
    );
  const [first, second] = curves as [LibraryCurve, LibraryCurve];
  switch (formula.op) {
    case 'sum':
      return sumOfCurves(curves);
    case 'product':
      return productOfCurves(curves);
    case 'largest':
    case 'smallest':
      return extremeOfCurves(curves, formula.op);
    case 'average':
      return averageOfCurves(curves, formula.how);
    case 'difference':
      return differenceOfCurves(first, second);
    case 'ratio':
      return ratioOfCurves(first, second);
    case 'splice':
      return splicedCurves(first, second, formula.atHz, formula.octaves);
    case 'inverse':
      return inverseOfCurve(first);
    case 'minimum phase':
      return minimumPhasePart(first);
    case 'excess phase':
      return excessPhasePart(first);
    case 'delay removed':
      return delayRemoved(first, formula.delayS);
    case 'all-pass':
      return allPassed(first, formula.hz, formula.q);
    case 'shapes':
      return curveOfShapes(formula.shapes);
  }
}
