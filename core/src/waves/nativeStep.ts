import { nativeInstance } from '../native/index.js';
import { FIELD_STEP } from './fieldStepBytes.js';
import { SIDES } from './roomGrid.js';
import type { FieldStep, Stencil } from './stencil.js';

interface Exports {
  begin: (edgesAt: number, placesAt: number, spansAt: number, endAt: number) => void;
  beginPlain: (alongX: number, alongY: number, sx: number, sy: number, sz: number) => void;
  step: (now: number, before: number) => void;
}

const DOUBLE = Float64Array.BYTES_PER_ELEMENT;
const WHOLE = Int32Array.BYTES_PER_ELEMENT;
/** Numbers of an edge, and places, as core/assembly/fieldStep.ts reads them. */
const PER_EDGE = 8;

/** Steps by WebAssembly, the same to the last bit as in plain typed arrays; null where that is not to be had. */
export function nativeStep(stencil: Stencil): FieldStep | null {
  const { squares, strides, spans, cell, own, last, beside, counts, cells } = stencil;
  const edgesAt = 2 * cells * DOUBLE;
  const placesAt = edgesAt + cell.length * PER_EDGE * DOUBLE;
  const spansAt = placesAt + cell.length * PER_EDGE * WHOLE;
  const endAt = spansAt + spans.length * WHOLE;
  const native = nativeInstance<Exports>(FIELD_STEP, endAt);
  if (!native) return null;
  const { buffer, exports } = native;
  const numbers = new Float64Array(buffer, edgesAt, cell.length * PER_EDGE);
  const places = new Int32Array(buffer, placesAt, cell.length * PER_EDGE);
  for (let e = 0; e < cell.length; e++) {
    numbers.set([own[e]!, last[e]!, ...counts.subarray(SIDES * e, SIDES * (e + 1))], PER_EDGE * e);
    places.set(
      [cell[e]!, ...beside.subarray(SIDES * e, SIDES * (e + 1))].map((at) => at * DOUBLE),
      PER_EDGE * e,
    );
  }
  new Int32Array(buffer, spansAt, spans.length).set(spans.map((at) => at * DOUBLE));
  exports.begin(edgesAt, placesAt, spansAt, endAt);
  exports.beginPlain(strides[0] * DOUBLE, strides[1] * DOUBLE, ...squares);
  const at = [0, cells * DOUBLE] as const;
  return {
    pressures: [new Float64Array(buffer, at[0], cells), new Float64Array(buffer, at[1], cells)],
    step: (from) => exports.step(at[from], at[from === 0 ? 1 : 0]),
  };
}
