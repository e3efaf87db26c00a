/** Traces of the library: curves that are looked at, computed with, imported and exported. */
export {
  curveOfShapes,
  LIBRARY_GRID,
  onSharedPoints,
  viewedCurve,
  type CurveView,
  type TraceWindow,
  type LibraryCurve,
} from './libraryCurve.js';
export {
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
export { evaluateFormula, FORMULA_TAKES, type Formula, type FormulaOp } from './formula.js';
export { withoutMicrophone, type MicrophoneResponse } from './withoutMicrophone.js';
export { workOut, type LongWork } from './longWork.js';
export { windowedCurve } from './windowedCurve.js';
export { bandLevelDb } from './bandLevel.js';
export { spectrumOnGrid } from './spectrumOnGrid.js';
export { impulseOfCurve } from './impulseOfCurve.js';
export { timeZeroOf, type TimeZero } from './timeZero.js';
export { curveOfImpulse, peakOf } from './curveOfImpulse.js';
export { COLUMN_MEANINGS, curveOfTable, likelyMeanings, type ColumnMeaning } from './curveOfTable.js';
export { writeCurveText } from './curveText.js';
export { alikeWithin, type Alike } from './alike.js';
