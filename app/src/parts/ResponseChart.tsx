import { ActionIcon, Select, useComputedColorScheme } from '@mantine/core';
import { smoothLevels } from '@pebble-hall/core/signal';
import { IconZoomIn, IconZoomOut, IconZoomReset } from '@tabler/icons-react';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { CartesianGrid, LineChart, usePlotArea, XAxis, YAxis } from 'recharts';
import { ChartHandles, type HandleEvents } from './ChartHandles';
import {
  axisHz,
  formatDb,
  formatHz,
  frequencyAt,
  frequencyTicks,
  FULL_BAND,
  levelAt,
  levelRange,
  levelTicks,
  nearestIndex,
  xOf,
  yOf,
  zoomed,
  type PlotView,
} from './chartMath';
import { drawTraces, type ChartBand, type ChartTrace } from './drawTraces';
import { SpanBracket } from './SpanBracket';

export type { ChartBand, ChartTrace } from './drawTraces';

export interface ChartMark {
  number: number;
  frequency: number;
  levelDb: number;
  attention?: boolean;
}

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
    onChange: (span: { from: number; to: number }, done: boolean) => void;
  } | null;
  marks?: ChartMark[];
  /** level range; found from the curves when absent */
  range?: { lowDb: number; highDb: number };
  levelLabel?: string;
  /** octave fraction that is chosen; without it the curves stand as they are and there is no choice */
  smoothing?: number;
  onSmoothing?: (fraction: number) => void;
  tools?: ReactNode;
}

const SMOOTHINGS = [1, 3, 6, 12, 24, 48];
const MARGIN = { top: 22, right: 22, bottom: 4, left: 0 };
const AXIS_HEIGHT = 24;
const SPAN_HEIGHT = 30;

/**
 * The one chart of responses over frequency: Recharts lays out axes and grid, a canvas over its plot area draws the
 * curves, so that they can move with a hand.
 */
export function ResponseChart(props: ResponseChartProps) {
  const { frequency, traces, bands = [], target = null, smoothing } = props;
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [area, setArea] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const [band, setBand] = useState<{ fromHz: number; toHz: number }>(FULL_BAND);
  const [cursor, setCursor] = useState<{ trace: number; index: number } | null>(null);
  const [selecting, setSelecting] = useState<{ from: number; to: number } | null>(null);

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width: Math.floor(width), height: Math.floor(height) });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const smooth = useCallback(
    (levels: Float64Array) => (smoothing ? smoothLevels(frequency, levels, smoothing) : levels),
    [frequency, smoothing],
  );
  const shown = useMemo(() => traces.map((t) => ({ ...t, levels: smooth(t.levels) })), [traces, smooth]);
  const shownBands = useMemo(
    () => bands.map((b) => ({ ...b, low: smooth(b.low), high: smooth(b.high) })),
    [bands, smooth],
  );
  const range = useMemo(
    () => props.range ?? levelRange(frequency, [...shown.map((t) => t.levels), ...(target ? [target] : [])]),
    [props.range, frequency, shown, target],
  );
  const view: PlotView | null = useMemo(
    () => (area ? { ...area, ...band, ...range } : null),
    [area, band, range],
  );

  const picked = cursor && shown[cursor.trace] ? { ...cursor, trace: shown[cursor.trace]! } : null;
  const readout = picked
    ? `${formatHz(frequency[picked.index]!)}, ${formatDb(picked.trace.levels[picked.index]!)}, ${picked.trace.label}`
    : '';

  const point = (event: { clientX: number; clientY: number }) => {
    const rect = box.current!.getBoundingClientRect();
    return { x: event.clientX - rect.left, y: event.clientY - rect.top };
  };
  const inside = ({ x, y }: { x: number; y: number }) =>
    view !== null && x >= view.x && x <= view.x + view.width && y >= view.y && y <= view.y + view.height;

  const onMove = (event: React.PointerEvent) => {
    if (!view) return;
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
    else if (event.key === '0') setBand(FULL_BAND);
    else return;
    event.preventDefault();
  };
  const zoomBy = (factor: number) =>
    setBand((b) => zoomed(b, cursor ? frequency[cursor.index]! : Math.sqrt(b.fromHz * b.toHz), factor));

  return (
    <div style={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <div
        style={{ display: 'flex', alignItems: 'center', gap: 10, padding: '5px 10px 0 14px', minHeight: 32 }}
      >
        <Legend traces={traces} bands={bands} target={target !== null} />
        <span style={{ flex: 1 }} />
        <output
          className="mono"
          aria-live="polite"
          aria-label="Readout"
          style={{ fontSize: 12.5, whiteSpace: 'nowrap' }}
        >
          {readout}
        </output>
        {props.tools}
        {smoothing && props.onSmoothing ? (
          <Select
            aria-label="Smoothing"
            size="xs"
            w={116}
            allowDeselect={false}
            data={SMOOTHINGS.map((f) => ({ value: String(f), label: `1/${f} octave` }))}
            value={String(smoothing)}
            onChange={(value) => value && props.onSmoothing?.(Number(value))}
          />
        ) : null}
        <ActionIcon.Group>
          <ActionIcon variant="default" aria-label="Zoom in" onClick={() => zoomBy(0.6)}>
            <IconZoomIn size={16} />
          </ActionIcon>
          <ActionIcon variant="default" aria-label="Zoom out" onClick={() => zoomBy(1 / 0.6)}>
            <IconZoomOut size={16} />
          </ActionIcon>
          <ActionIcon variant="default" aria-label="Show the whole band" onClick={() => setBand(FULL_BAND)}>
            <IconZoomReset size={16} />
          </ActionIcon>
        </ActionIcon.Group>
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
        {size.width > 80 && size.height > 80 ? (
          <>
            <Scaffold
              size={size}
              band={band}
              range={range}
              levelLabel={props.levelLabel ?? 'dB'}
              span={Boolean(props.span)}
              onArea={setArea}
            />
            {view ? (
              <>
                <TraceCanvas
                  size={size}
                  view={view}
                  frequency={frequency}
                  traces={shown}
                  bands={shownBands}
                  target={target}
                />
                <svg
                  width={size.width}
                  height={size.height}
                  style={{ position: 'absolute', inset: 0, overflow: 'visible' }}
                >
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

interface ScaffoldProps {
  size: { width: number; height: number };
  band: { fromHz: number; toHz: number };
  range: { lowDb: number; highDb: number };
  levelLabel: string;
  span: boolean;
  onArea: (area: { x: number; y: number; width: number; height: number }) => void;
}

/** Axes and grid; drawn again only when they change, not when the curves move. */
const Scaffold = memo(function Scaffold({ size, band, range, levelLabel, span, onArea }: ScaffoldProps) {
  const { lines, labels } = frequencyTicks(band.fromHz, band.toHz);
  const levels = levelTicks(range.lowDb, range.highDb);
  const ends = [{ f: band.fromHz }, { f: band.toHz }];
  return (
    <div aria-hidden="true">
      <LineChart
        width={size.width}
        height={size.height}
        data={ends}
        margin={{ ...MARGIN, bottom: MARGIN.bottom + (span ? SPAN_HEIGHT : 0) }}
      >
        <CartesianGrid
          stroke="var(--line-soft)"
          verticalCoordinatesGenerator={(p) => verticals(p.offset, band, lines)}
        />
        <XAxis
          dataKey="f"
          type="number"
          scale="log"
          domain={[band.fromHz, band.toHz]}
          ticks={labels}
          interval={0}
          allowDataOverflow
          tickFormatter={axisHz}
          height={AXIS_HEIGHT}
          stroke="var(--line)"
          tick={{ fill: 'var(--soft)', fontSize: 11.5 }}
          tickLine={false}
        />
        <YAxis
          type="number"
          domain={[range.lowDb, range.highDb]}
          ticks={levels}
          interval={0}
          allowDataOverflow
          width={46}
          stroke="var(--line)"
          tick={{ fill: 'var(--soft)', fontSize: 11.5 }}
          tickLine={false}
          tickFormatter={(v: number) => (v > 0 ? `+${v}` : v < 0 ? `\u2212${-v}` : '0')}
        />
        <PlotAreaProbe onArea={onArea} />
      </LineChart>
      <span style={{ position: 'absolute', left: 14, top: 1, fontSize: 11.5, color: 'var(--soft)' }}>
        {levelLabel}
      </span>
    </div>
  );
});

function verticals(
  offset: { left?: number; width?: number },
  { fromHz, toHz }: { fromHz: number; toHz: number },
  lines: number[],
) {
  const { left = 0, width = 0 } = offset;
  return lines.map((f) => left + (width * Math.log(f / fromHz)) / Math.log(toHz / fromHz));
}

/** Tells where Recharts has put its plot area. */
function PlotAreaProbe({ onArea }: Pick<ScaffoldProps, 'onArea'>) {
  const area = usePlotArea();
  const { x, y, width, height } = area ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0 && height > 0) onArea({ x, y, width, height });
  }, [x, y, width, height, onArea]);
  return null;
}

function TraceCanvas({
  size,
  view,
  ...picture
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
  useEffect(() => {
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
    const style = getComputedStyle(document.documentElement);
    drawTraces(context, view, { ...picture, colourOf: (name) => style.getPropertyValue(`--${name}`).trim() });
    element.dataset.redraws = String(Number(element.dataset.redraws ?? 0) + 1);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the scheme changes what the variables hold
  }, [size, view, picture.frequency, picture.traces, picture.bands, picture.target, scheme]);
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

function Cursor({ view, frequency, levelDb }: { view: PlotView; frequency: number; levelDb: number }) {
  const x = xOf(view, frequency);
  const y = Math.min(view.y + view.height, Math.max(view.y, yOf(view, levelDb)));
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={view.y} y2={view.y + view.height} stroke="var(--soft)" strokeDasharray="2 3" />
      {Number.isFinite(y) ? (
        <circle cx={x} cy={y} r={4} fill="var(--card)" stroke="var(--ink)" strokeWidth={1.5} />
      ) : null}
    </g>
  );
}

function Mark({ view, number, frequency, levelDb, attention }: ChartMark & { view: PlotView }) {
  const x = xOf(view, frequency);
  if (x < view.x || x > view.x + view.width) return null;
  const y = Math.min(view.y + view.height - 12, Math.max(view.y + 12, yOf(view, levelDb)));
  return (
    <g transform={`translate(${x},${y})`} pointerEvents="none">
      <ellipse rx={10.5} ry={9} fill={attention ? 'var(--buoy-soft)' : 'var(--stone)'} stroke="var(--card)" />
      <text
        textAnchor="middle"
        y={4}
        fontSize={12}
        fontWeight={700}
        fill={attention ? 'var(--buoy)' : 'var(--stone-ink)'}
      >
        {number}
      </text>
    </g>
  );
}

function Legend({ traces, bands, target }: { traces: ChartTrace[]; bands: ChartBand[]; target: boolean }) {
  const dash = { measured: undefined, predicted: '7 4', reference: '2 4', noise: undefined };
  return (
    <ul
      aria-label="Legend"
      style={{
        display: 'flex',
        gap: 14,
        listStyle: 'none',
        margin: 0,
        padding: 0,
        fontSize: 12.5,
        overflow: 'hidden',
        whiteSpace: 'nowrap',
      }}
    >
      {traces.map(({ id, label, colour, role }) => (
        <li key={id} style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={26} height={8}>
            <line
              x1={0}
              x2={26}
              y1={4}
              y2={4}
              stroke={`var(--${colour})`}
              strokeWidth={role === 'noise' ? 1.2 : 2.2}
              strokeDasharray={dash[role]}
            />
          </svg>
          {label}
        </li>
      ))}
      {bands.map(({ id, label, colour }) => (
        <li key={id} style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={22} height={10}>
            <rect width={22} height={10} rx={2} fill={`var(--${colour})`} opacity={0.2} />
          </svg>
          {label}
        </li>
      ))}
      {target ? (
        <li style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={26} height={10}>
            <line x1={0} x2={26} y1={5} y2={5} stroke="var(--target)" strokeWidth={9} opacity={0.3} />
            <line x1={0} x2={26} y1={5} y2={5} stroke="var(--target)" strokeWidth={1.4} />
          </svg>
          target
        </li>
      ) : null}
    </ul>
  );
}
