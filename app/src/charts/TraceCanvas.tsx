import { useEffect, useRef } from 'react';
import type { PlotView } from './chartMath';
import { drawTraces, type ChartBand, type ChartTrace } from './drawTraces';
import { useLookColours } from './lookColours';
import { sizedContext } from './sizedContext';

const NO_BANDS: ChartBand[] = [];

/** Curves on a canvas over the plot area: drawn anew whenever one of them moves. */
export function TraceCanvas({
  size,
  view,
  frequency,
  traces,
  bands = NO_BANDS,
  target = null,
}: {
  size: { width: number; height: number };
  view: PlotView;
  frequency: Float64Array;
  traces: ChartTrace[];
  bands?: ChartBand[];
  target?: Float64Array | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const colours = useLookColours();
  useEffect(() => {
    if (!colours) return;
    const element = canvas.current!;
    const context = sizedContext(element, size);
    drawTraces(context, view, { frequency, traces, bands, target, colourOf: colours });
    element.dataset.redraws = String(Number(element.dataset.redraws ?? 0) + 1);
  }, [size, view, frequency, traces, bands, target, colours]);
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      style={{
        position: 'absolute',
        inset: 0,
        width: size.width,
        height: size.height,
        pointerEvents: 'none',
      }}
    />
  );
}
