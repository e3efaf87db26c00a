import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { PlotView } from './chartMath';
import { drawTraces, type ChartBand, type ChartTrace } from './drawTraces';

/** Colours by their names in the style sheet, as they are in a look; each is asked for once. */
function coloursOf(_scheme: 'light' | 'dark') {
  const style = getComputedStyle(document.documentElement);
  const known = new Map<string, string>();
  return (name: string) => {
    const colour = known.get(name) ?? style.getPropertyValue(`--${name}`).trim();
    known.set(name, colour);
    return colour;
  };
}

/** The curves, on a canvas over the plot area: drawn anew whenever one of them moves. */
export function TraceCanvas({
  size,
  view,
  frequency,
  traces,
  bands,
  target,
}: {
  size: { width: number; height: number };
  view: PlotView;
  frequency: Float64Array;
  traces: ChartTrace[];
  bands: ChartBand[];
  target: Float64Array | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scheme = useComputedColorScheme('light');
  const [colours, setColours] = useState<ReturnType<typeof coloursOf> | null>(null);
  useLayoutEffect(() => setColours(() => coloursOf(scheme)), [scheme]);
  useEffect(() => {
    if (!colours) return;
    const element = canvas.current!;
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
    if (element.width !== width || element.height !== height) {
      element.width = width;
      element.height = height;
    }
    const context = element.getContext('2d')!;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, size.width, size.height);
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
