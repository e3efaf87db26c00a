import { xOf, yOf, type PlotView } from './chartMath';
import { Straightened } from './straightened';

/** Roles are told by line: measured solid, predicted dashed, reference dotted, noise thin. */
export type TraceRole = 'measured' | 'predicted' | 'reference' | 'noise';

export interface ChartTrace {
  id: string;
  label: string;
  role: TraceRole;
  /** a name of `look.css`, as in `trace-mussel` */
  colour: string;
  levels: Float64Array;
}

export interface ChartBand {
  id: string;
  label: string;
  colour: string;
  low: Float64Array;
  high: Float64Array;
}

const DASHES: Record<TraceRole, number[]> = { measured: [], predicted: [8, 5], reference: [2, 4], noise: [] };
const WIDTHS: Record<TraceRole, number> = { measured: 2.1, predicted: 2.2, reference: 1.8, noise: 1.2 };

export interface Picture {
  frequency: Float64Array;
  traces: ChartTrace[];
  bands: ChartBand[];
  target: Float64Array | null;
  colourOf: (name: string) => string;
}

/** Draws bands, target and traces into the plot area; nothing is drawn outside it. */
export function drawTraces(context: CanvasRenderingContext2D, view: PlotView, picture: Picture): void {
  const { colourOf } = picture;
  const xs = picture.frequency.map((f) => xOf(view, f));
  context.save();
  context.beginPath();
  context.rect(view.x, view.y, view.width, view.height);
  context.clip();
  for (const { low, high, colour } of picture.bands) {
    context.fillStyle = colourOf(colour);
    context.globalAlpha = 0.14;
    context.beginPath();
    curve(context, view, xs, high, 'move');
    curve(context, view, xs, low, 'line', true);
    context.closePath();
    context.fill();
    context.globalAlpha = 1;
  }
  if (picture.target) {
    context.strokeStyle = colourOf('target');
    for (const [width, alpha] of [
      [11, 0.28],
      [1.4, 1],
    ] as const) {
      context.lineWidth = width;
      context.globalAlpha = alpha;
      stroke(context, view, xs, picture.target);
    }
    context.globalAlpha = 1;
  }
  for (const { levels, role, colour } of picture.traces) {
    context.strokeStyle = colourOf(colour);
    context.lineWidth = WIDTHS[role];
    context.lineJoin = 'round';
    context.setLineDash(DASHES[role]);
    stroke(context, view, xs, levels);
    context.setLineDash([]);
  }
  context.restore();
}

function stroke(context: CanvasRenderingContext2D, view: PlotView, xs: Float64Array, levels: Float64Array) {
  context.beginPath();
  curve(context, view, xs, levels, 'move');
  context.stroke();
}

/** How far outside the plot a curve is followed, px. */
const BESIDE_PX = 60;

function curve(
  context: CanvasRenderingContext2D,
  view: PlotView,
  xs: Float64Array,
  levels: Float64Array,
  start: 'move' | 'line',
  backwards = false,
) {
  const line = new Straightened(context, start === 'line');
  for (let j = 0; j < xs.length; j++) {
    const i = backwards ? xs.length - 1 - j : j;
    // a level of nothing lies below the plot, not in a gap
    const level = Math.max(levels[i]!, view.lowDb - 50);
    if (Number.isNaN(level)) {
      line.end();
      continue;
    }
    const x = xs[i]!;
    if (x < view.x - BESIDE_PX || x > view.x + view.width + BESIDE_PX) continue;
    line.to(x, yOf(view, level));
  }
  line.end();
}
