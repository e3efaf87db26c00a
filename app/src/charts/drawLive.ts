import { xOf, yOf, type PlotView } from './chartMath';
import type { ColourOf } from './lookColours';

/** A curve that moves; values over the frequencies of its plot. */
export interface LiveCurve {
  colour: string;
  values: Float64Array;
  /** 0 to 1: a curve fades where this falls; drawn whole when absent */
  sure?: Float64Array | null;
  /** px */
  width: number;
  dash?: number[];
  /** the curve is an area up to these values, instead of a line */
  upTo?: Float64Array;
}

/** From what share on a curve is drawn how strongly. */
const STRENGTHS = [
  [0.85, 1],
  [0.6, 0.55],
  [0.35, 0.25],
  [-1, 0.1],
] as const;

const strengthOf = (sure: number): number => STRENGTHS.findIndex(([from]) => !(sure < from));

/**
 * Draws curves into the plot area, each thinner in colour where it is less sure.
 * @param jump values further apart than this are not joined: where a phase begins anew
 */
export function drawLive(
  context: CanvasRenderingContext2D,
  view: PlotView,
  frequency: Float64Array,
  curves: readonly LiveCurve[],
  colourOf: ColourOf,
  jump = Infinity,
): void {
  context.save();
  context.beginPath();
  context.rect(view.x, view.y, view.width, view.height);
  context.clip();
  context.lineJoin = 'round';
  for (const curve of curves) {
    const { colour, values, sure, width, dash = [], upTo } = curve;
    if (upTo) {
      fillBetween(context, view, frequency, values, upTo, colourOf(colour));
      continue;
    }
    context.strokeStyle = colourOf(colour);
    context.lineWidth = width;
    context.setLineDash(dash);
    STRENGTHS.forEach(([, alpha], strength) => {
      context.globalAlpha = alpha;
      context.beginPath();
      let joined = false;
      for (let n = 1; n < frequency.length; n++) {
        const [a, b] = [values[n - 1]!, values[n]!];
        const here = sure ? strengthOf(Math.min(sure[n - 1]!, sure[n]!)) : 0;
        // what is not known has no strength either
        const drawn =
          here === strength && Number.isFinite(a) && Number.isFinite(b) && Math.abs(b - a) <= jump;
        if (!drawn) {
          joined = false;
          continue;
        }
        if (!joined) context.moveTo(xOf(view, frequency[n - 1]!), yOf(view, a));
        context.lineTo(xOf(view, frequency[n]!), yOf(view, b));
        joined = true;
      }
      context.stroke();
    });
  }
  context.restore();
}

const AREA_ALPHA = 0.18;

/** An area between two rows of values, in pieces where both are known. */
function fillBetween(
  context: CanvasRenderingContext2D,
  view: PlotView,
  frequency: Float64Array,
  low: Float64Array,
  high: Float64Array,
  colour: string,
): void {
  context.fillStyle = colour;
  context.globalAlpha = AREA_ALPHA;
  let from = 0;
  const known = (n: number) => Number.isFinite(low[n]!) && Number.isFinite(high[n]!);
  while (from < frequency.length) {
    if (!known(from)) {
      from++;
      continue;
    }
    let to = from;
    context.beginPath();
    while (to < frequency.length && known(to)) {
      context.lineTo(xOf(view, frequency[to]!), yOf(view, high[to]!));
      to++;
    }
    for (let n = to - 1; n >= from; n--) context.lineTo(xOf(view, frequency[n]!), yOf(view, low[n]!));
    context.closePath();
    context.fill();
    from = to;
  }
}
