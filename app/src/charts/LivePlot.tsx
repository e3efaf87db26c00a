import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useSize } from './useSize';
import { ChartScaffold } from './ChartScaffold';
import { formatHz, frequencyAt, FULL_BAND, nearestIndex, xOf, yOf, zoomed, type PlotView } from './chartMath';
import { drawLive, type LiveCurve } from './drawLive';
import { useLookColours } from './lookColours';
import { PlotHandles } from './PlotHandles';
import { sizedContext } from './sizedContext';

interface Band {
  fromHz: number;
  toHz: number;
}

/** A box that is narrower is a slip of the hand, px. */
const LEAST_BOX = 10;
const NEARER = 0.8;

export interface LivePlotProps {
  /** what the plot shows, for those who hear it */
  label: string;
  /** what stands at the top of its axis */
  unit: string;
  /** a few words beside it: what the curves are */
  caption?: string;
  frequency: Float64Array;
  range: { lowDb: number; highDb: number };
  /** of its axis; round steps when absent */
  ticks?: number[];
  band?: Band;
  /** another band is wanted: a box was drawn, the wheel turned, + or − or 0 pressed; not offered when absent */
  onBand?: (band: Band) => void;
  /** whether values are differences, written with their sign */
  signed?: boolean;
  /** the curves as they are at this moment, the last over the others */
  curves: () => LiveCurve[];
  /** calls back whenever they may have moved, until the returned function is called */
  subscribe: (tell: () => void) => () => void;
  /** values further apart than this are not joined */
  jump?: number;
  /** index of the frequency that is pointed at, in all plots of a stack; null for none */
  cursor: number | null;
  onCursor: (index: number | null) => void;
  /** what a hand may move on it */
  handles?: Omit<React.ComponentProps<typeof PlotHandles>, 'view'>;
  /** a band that is marked on all plots of a stack, Hz */
  marked?: { from: number; to: number } | null;
  /** what heights mean, written at the right end of the plot */
  meanings?: readonly { at: number; text: string }[];
  /** drawn over the right end of its top line */
  tools?: ReactNode;
}

function MarkedBand({ view, from, to }: { view: PlotView; from: number; to: number }) {
  const end = (hz: number) => Math.min(view.x + view.width, Math.max(view.x, xOf(view, hz)));
  return (
    <div
      aria-hidden="true"
      style={{
        position: 'absolute',
        left: end(from),
        width: Math.max(0, end(to) - end(from)),
        top: view.y,
        height: view.height,
        background: 'var(--stone)',
        opacity: 0.45,
        borderInline: '1px solid var(--soft)',
        pointerEvents: 'none',
      }}
    />
  );
}

/** Curves that move while they are measured: the canvas follows a stream, and nothing else is drawn with it. */
export function LivePlot(props: LivePlotProps) {
  const { frequency, range, curves, subscribe, jump, cursor, onCursor, band = FULL_BAND, onBand } = props;
  const [boxed, setBoxed] = useState<{ from: number; to: number } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(box);
  const [area, setArea] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const colourOf = useLookColours();
  const view: PlotView | null = useMemo(
    () => (area ? { ...area, ...band, ...range } : null),
    [area, band, range],
  );
  useEffect(() => {
    if (!view || !colourOf) return;
    const element = canvas.current;
    if (!element) return;
    const draw = () => {
      drawLive(sizedContext(element, size), view, frequency, curves(), colourOf, jump);
      element.dataset.redraws = String(Number(element.dataset.redraws ?? 0) + 1);
    };
    draw();
    return subscribe(draw);
  }, [view, size, frequency, curves, subscribe, jump, colourOf]);
  const onMove = (event: React.PointerEvent) => {
    const rect = box.current!.getBoundingClientRect();
    const x = event.clientX - rect.left;
    if (boxed) return setBoxed({ ...boxed, to: x });
    if (!view || x < view.x || x > view.x + view.width) return onCursor(null);
    onCursor(nearestIndex(frequency, frequencyAt(view, x)));
  };
  const onDown = (event: React.PointerEvent) => {
    if (!onBand || !view || event.button !== 0 || (event.target as Element).closest('button')) return;
    const x = event.clientX - box.current!.getBoundingClientRect().left;
    if (x >= view.x && x <= view.x + view.width) setBoxed({ from: x, to: x });
  };
  const onUp = () => {
    setBoxed(null);
    if (!boxed || !view || Math.abs(boxed.to - boxed.from) < LEAST_BOX) return;
    const ends = [boxed.from, boxed.to].map((x) => Math.min(view.x + view.width, Math.max(view.x, x)));
    const [fromHz, toHz] = ends.sort((a, b) => a - b).map((x) => frequencyAt(view, x)) as [number, number];
    onBand?.(zoomed({ fromHz, toHz }, Math.sqrt(fromHz * toHz), 1));
  };
  useEffect(() => {
    const element = box.current;
    if (!element || !onBand || !view) return;
    const onWheel = (event: WheelEvent) => {
      const x = event.clientX - element.getBoundingClientRect().left;
      if (x < view.x || x > view.x + view.width || event.deltaY === 0) return;
      event.preventDefault();
      onBand(zoomed(view, frequencyAt(view, x), event.deltaY < 0 ? NEARER : 1 / NEARER));
    };
    // the page scrolls unless it is told at once that it must not
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [onBand, view]);
  const onKey = (event: React.KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (event.target !== event.currentTarget) return;
    const factor = { '+': NEARER, '=': NEARER, '-': 1 / NEARER, '0': Infinity }[event.key];
    if (onBand && view && factor !== undefined) {
      event.preventDefault();
      const middle = cursor === null ? Math.sqrt(band.fromHz * band.toHz) : frequency[cursor]!;
      return onBand(factor === Infinity ? FULL_BAND : zoomed(view, middle, factor));
    }
    if (step === undefined) return;
    event.preventDefault();
    const from = cursor ?? nearestIndex(frequency, 1000);
    onCursor(Math.max(0, Math.min(frequency.length - 1, from + step * (event.shiftKey ? 12 : 1))));
  };
  const pointed = cursor === null ? null : frequency[cursor]!;
  return (
    <div
      ref={box}
      role="application"
      aria-label={props.label}
      aria-roledescription="plot"
      tabIndex={0}
      onKeyDown={onKey}
      onPointerDown={onDown}
      onPointerUp={onUp}
      onPointerMove={onMove}
      onPointerLeave={() => {
        setBoxed(null);
        onCursor(null);
      }}
      style={{ position: 'relative', minHeight: 0, minWidth: 0, height: '100%', overflow: 'hidden' }}
    >
      <span
        className="quiet"
        style={{ position: 'absolute', left: 62, top: 1, fontSize: 11.5, pointerEvents: 'none' }}
      >
        {props.caption}
      </span>
      {props.tools ? (
        <span style={{ position: 'absolute', right: 22, top: 0, zIndex: 1, display: 'flex', gap: 6 }}>
          {props.tools}
        </span>
      ) : null}
      {size.width > 80 && size.height > 60 ? (
        <>
          <ChartScaffold
            size={size}
            band={band}
            range={range}
            levelLabel={props.unit}
            signed={props.signed ?? true}
            span={false}
            {...(props.ticks ? { ticks: props.ticks } : {})}
            onArea={setArea}
          />
          {view && props.marked ? <MarkedBand view={view} {...props.marked} /> : null}
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
          {view && props.meanings ? (
            <svg
              width={size.width}
              height={size.height}
              style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
              aria-hidden="true"
            >
              {props.meanings.map(({ at, text }) => (
                <text
                  key={at}
                  x={view.x + view.width - 6}
                  y={yOf(view, at) - 3}
                  textAnchor="end"
                  fontSize={11}
                  fill="var(--soft)"
                >
                  {text}
                </text>
              ))}
            </svg>
          ) : null}
          {view && boxed ? (
            <div
              aria-hidden="true"
              style={{
                position: 'absolute',
                left: Math.min(boxed.from, boxed.to),
                width: Math.abs(boxed.to - boxed.from),
                top: view.y,
                height: view.height,
                background: 'var(--kelp)',
                opacity: 0.14,
                pointerEvents: 'none',
              }}
            />
          ) : null}
          {view && props.handles ? <PlotHandles view={view} {...props.handles} /> : null}
          {view && pointed !== null ? (
            <svg
              width={size.width}
              height={size.height}
              style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
              aria-hidden="true"
            >
              <line
                x1={xOf(view, pointed)}
                x2={xOf(view, pointed)}
                y1={view.y}
                y2={view.y + view.height}
                stroke="var(--soft)"
                strokeDasharray="3 3"
              />
              <text
                x={Math.min(xOf(view, pointed) + 5, view.x + view.width - 60)}
                y={view.y + 12}
                fontSize={11.5}
                fill="var(--ink)"
              >
                {formatHz(pointed)}
              </text>
            </svg>
          ) : null}
        </>
      ) : null}
    </div>
  );
}
