import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useAlike } from '../services/useDerived';
import { useSize } from './useSize';
import { useSmoothed } from './useSmoothed';
import { ChartHandles, type HandleEvents } from './ChartHandles';
import { ChartLegend } from './ChartLegend';
import { Cursor, Mark, type ChartMark } from './ChartMarks';
import { ChartScaffold, SPAN_HEIGHT } from './ChartScaffold';
import {
  formatDb,
  formatHz,
  frequencyAt,
  FULL_BAND,
  levelAt,
  levelRange,
  nearestIndex,
  xOf,
  yOf,
  zoomed,
  type PlotView,
} from './chartMath';
import { SmoothingSelect, smoothingName, ZoomButtons, type Smoothing } from './ChartTools';
import type { ChartBand, ChartTrace } from './drawTraces';
import type { SavedPlot } from './plotSvg';
import { savedResponse } from './savedResponse';
import { SavePlotMenu } from './SavePlotMenu';
import { SpanBracket } from './SpanBracket';
import { TraceCanvas } from './TraceCanvas';

export type { ChartMark } from './ChartMarks';
export type { ChartBand, ChartTrace } from './drawTraces';

export interface ResponseChartProps {
  /** what the plot shows, for those who hear it */
  label: string;
  frequency: Float64Array;
  traces: ChartTrace[];
  bands?: ChartBand[];
  target?: Float64Array | null;
  handles?: HandleEvents | null;
  span?: {
    from: number;
    to: number;
    onChange: (span: { from: number; to: number }, end: 'from' | 'to', done: boolean) => void;
  } | null;
  marks?: ChartMark[];
  /** stretches of frequency that are shaded, each with what it says when pointed at */
  stretches?: { fromHz: number; toHz: number; text: string }[];
  /** level range; found from the curves when absent */
  range?: { lowDb: number; highDb: number };
  levelLabel?: string;
  /** levels are sound pressure levels, not differences */
  absolute?: boolean;
  /** octave fraction that is chosen; without it the curves stand as they are and there is no choice */
  smoothing?: Smoothing;
  onSmoothing?: (smoothing: Smoothing) => void;
  /** how a value under the cursor is written; dB when absent */
  format?: (value: number) => string;
  /** with it, the plot can be saved under this title */
  title?: string;
  /** the band that is shown at first; 20 Hz to 20 kHz when absent */
  within?: { fromHz: number; toHz: number };
  tools?: ReactNode;
  /** whether curves come and go under the pointer: the legend then keeps to one line, so that the plot stays where it is */
  legendChanges?: boolean;
  /** told the point of `frequency` that the cursor stands at; null when it has left */
  onCursor?: (index: number | null) => void;
}

export type { Smoothing };

const NONE: ChartTrace[] = [];

/**
 * The one chart of responses over frequency: Recharts lays out axes and grid, a canvas over its plot area draws the
 * curves, so that they can move with a hand.
 */
export function ResponseChart(props: ResponseChartProps) {
  'use memo';
  const { frequency, traces, bands = [], target = null, smoothing } = props;
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [area, setArea] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const [band, setBand] = useState<{ fromHz: number; toHz: number }>(props.within ?? FULL_BAND);
  const [cursor, setCursor] = useState<{ trace: number; index: number } | null>(null);
  const [selecting, setSelecting] = useState<{ from: number; to: number } | null>(null);

  const { shown, shownBands } = useSmoothed(frequency, traces, bands, smoothing);
  const found = useMemo(
    () => props.range ?? levelRange(frequency, [...shown.map((t) => t.levels), ...(target ? [target] : [])]),
    [props.range, frequency, shown, target],
  );
  // the same while a hand moves curves within it, so that what stands in the plot is not drawn with them
  const range = useAlike(found);
  // what was measured lies below what a hand moves, and is not drawn with it
  const first = shown.findIndex((t) => t.role === 'predicted');
  const still = useAlike(first < 0 ? shown : shown.slice(0, first));
  const areas = useAlike(shownBands);
  const moving = useAlike(first < 0 ? NONE : shown.slice(first));
  const view: PlotView | null = useMemo(
    () => (area ? { ...area, ...band, ...range } : null),
    [area, band, range],
  );

  const pointedAt = cursor?.index ?? null;
  const middle = pointedAt === null ? null : frequency[pointedAt]!;
  const zoomBy = useCallback(
    (factor: number) => setBand((b) => zoomed(b, middle ?? Math.sqrt(b.fromHz * b.toHz), factor)),
    [middle],
  );
  const { fromHz, toHz } = props.within ?? FULL_BAND;
  const showWhole = useCallback(() => setBand({ fromHz, toHz }), [fromHz, toHz]);

  const picked = cursor && shown[cursor.trace] ? { ...cursor, trace: shown[cursor.trace]! } : null;
  const { onCursor } = props;
  useEffect(() => {
    onCursor?.(pointedAt);
  }, [onCursor, pointedAt]);

  const saved = useRef<() => SavedPlot>(null);
  useEffect(() => {
    saved.current = () =>
      savedResponse(
        props.title ?? '',
        smoothing ? smoothingName(smoothing) : null,
        props.levelLabel ?? 'dB',
        { ...band, ...range },
        frequency,
        shown,
        target,
      );
  });
  /** the same function for every drawing, so that the menu is not drawn with the curves */
  const toSave = useCallback(() => saved.current!(), []);

  const readout = picked
    ? `${formatHz(frequency[picked.index]!)}, ${(props.format ?? formatDb)(picked.trace.levels[picked.index]!)}, ${picked.trace.label}`
    : '';

  const point = (event: { clientX: number; clientY: number }) => {
    const rect = box.current!.getBoundingClientRect();
    return { x: event.clientX - rect.left, y: event.clientY - rect.top };
  };
  const inside = ({ x, y }: { x: number; y: number }) =>
    view !== null && x >= view.x && x <= view.x + view.width && y >= view.y && y <= view.y + view.height;

  const onMove = (event: React.PointerEvent) => {
    // what is dragged tells its own numbers
    if (!view || (event.buttons > 0 && !selecting)) return;
    const at = point(event);
    if (selecting) return setSelecting({ ...selecting, to: at.x });
    if (!inside(at) || shown.length === 0) return setCursor(null);
    const index = nearestIndex(frequency, frequencyAt(view, at.x));
    const distance = (t: ChartTrace) => Math.abs(yOf(view, t.levels[index]!) - at.y);
    let trace = 0;
    shown.forEach((t, i) => {
      if (distance(t) < distance(shown[trace]!)) trace = i;
    });
    setCursor({ trace, index });
  };
  const onUp = (event: React.PointerEvent) => {
    if (!view || !selecting) return;
    const [a, b] = [selecting.from, point(event).x].sort((p, q) => p - q) as [number, number];
    setSelecting(null);
    if (b - a < 12) return;
    setBand(
      zoomed(
        {
          fromHz: frequencyAt(view, Math.max(a, view.x)),
          toHz: frequencyAt(view, Math.min(b, view.x + view.width)),
        },
        frequencyAt(view, (a + b) / 2),
        1,
      ),
    );
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (event.target !== event.currentTarget || shown.length === 0) return;
    const now = cursor ?? { trace: 0, index: nearestIndex(frequency, 1000) };
    const stride = event.shiftKey ? 12 : 1;
    const move = { ArrowLeft: -stride, ArrowRight: stride }[event.key];
    if (move !== undefined)
      setCursor({ ...now, index: Math.max(0, Math.min(frequency.length - 1, now.index + move)) });
    else if (event.key === 'ArrowUp')
      setCursor({ ...now, trace: (now.trace + shown.length - 1) % shown.length });
    else if (event.key === 'ArrowDown') setCursor({ ...now, trace: (now.trace + 1) % shown.length });
    else if (event.key === '+') zoomBy(0.6);
    else if (event.key === '-') zoomBy(1 / 0.6);
    else if (event.key === '0') showWhole();
    else return;
    event.preventDefault();
  };

  return (
    <div style={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <div
        style={{ display: 'flex', alignItems: 'center', gap: 10, padding: '5px 10px 0 14px', minHeight: 32 }}
      >
        <ChartLegend traces={traces} bands={bands} target={target !== null} wraps={!props.legendChanges} />
        <span style={{ flex: 1 }} />
        {/* the legend gives way, not what can be pressed */}
        <span style={{ display: 'flex', alignItems: 'center', gap: 10, flexShrink: 0 }}>
          {props.tools}
          {smoothing && props.onSmoothing ? (
            <SmoothingSelect smoothing={smoothing} onSmoothing={props.onSmoothing} />
          ) : null}
          {props.title ? <SavePlotMenu plot={toSave} /> : null}
          <ZoomButtons onZoom={zoomBy} onWhole={showWhole} />
        </span>
      </div>
      <div
        ref={box}
        role="application"
        aria-label={props.label}
        aria-roledescription="plot"
        tabIndex={0}
        onKeyDown={onKey}
        onPointerMove={onMove}
        onPointerLeave={() => !selecting && setCursor(null)}
        onPointerDown={(event) => {
          const at = point(event);
          if (event.button === 0 && inside(at) && !(event.target as Element).closest('[role=slider]')) {
            setSelecting({ from: at.x, to: at.x });
            event.currentTarget.setPointerCapture(event.pointerId);
          }
        }}
        onPointerUp={onUp}
        onDoubleClick={(event) => {
          const at = point(event);
          if (view && inside(at)) props.handles?.onAdd(frequencyAt(view, at.x), levelAt(view, at.y));
        }}
        style={{ flex: 1, minHeight: 0, position: 'relative', touchAction: 'none', userSelect: 'none' }}
      >
        <output
          className="mono"
          aria-live="polite"
          aria-label="Readout"
          style={{ position: 'absolute', right: 22, top: 0, fontSize: 12.5, pointerEvents: 'none' }}
        >
          {readout}
        </output>
        {size.width > 80 && size.height > 80 ? (
          <>
            <ChartScaffold
              size={size}
              band={band}
              range={range}
              levelLabel={props.levelLabel ?? 'dB'}
              signed={!props.absolute}
              span={Boolean(props.span)}
              onArea={setArea}
            />
            {view ? (
              <>
                <TraceCanvas size={size} view={view} frequency={frequency} traces={still} bands={areas} />
                <TraceCanvas size={size} view={view} frequency={frequency} traces={moving} target={target} />
                <svg
                  width={size.width}
                  height={size.height}
                  style={{ position: 'absolute', inset: 0, overflow: 'visible' }}
                >
                  {(props.stretches ?? []).map((stretch) => {
                    const [from, to] = [stretch.fromHz, stretch.toHz].map((f) =>
                      Math.min(view.x + view.width, Math.max(view.x, xOf(view, f))),
                    ) as [number, number];
                    return (
                      <rect
                        key={stretch.fromHz}
                        role="img"
                        aria-label={stretch.text}
                        x={from - 2}
                        width={Math.max(6, to - from + 4)}
                        y={view.y}
                        height={view.height}
                        fill="var(--buoy)"
                        opacity={0.13}
                      >
                        <title>{stretch.text}</title>
                      </rect>
                    );
                  })}
                  {selecting ? (
                    <rect
                      x={Math.min(selecting.from, selecting.to)}
                      width={Math.abs(selecting.to - selecting.from)}
                      y={view.y}
                      height={view.height}
                      fill="var(--kelp)"
                      opacity={0.12}
                    />
                  ) : null}
                  {picked ? (
                    <Cursor
                      view={view}
                      frequency={frequency[picked.index]!}
                      levelDb={picked.trace.levels[picked.index]!}
                    />
                  ) : null}
                  {(props.marks ?? []).map((mark) => (
                    <Mark key={mark.number} view={view} {...mark} />
                  ))}
                  {props.handles ? <ChartHandles view={view} {...props.handles} /> : null}
                  {props.span ? (
                    <SpanBracket view={view} y={size.height - SPAN_HEIGHT + 6} {...props.span} />
                  ) : null}
                </svg>
              </>
            ) : null}
          </>
        ) : null}
      </div>
    </div>
  );
}
