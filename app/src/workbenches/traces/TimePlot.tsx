import { useRef, useState } from 'react';
import { useSize } from '../../charts/useSize';
import { ticksOf } from '../../charts/chartMath';
import { SavePlotMenu } from '../../charts/SavePlotMenu';

export interface TimePlotProps {
  label: string;
  /** under which it is saved */
  title: string;
  values: Float32Array;
  fromMs: number;
  stepMs: number;
  range: { low: number; high: number };
  unit: string;
  colour: string;
  /** sides of the window around 0 ms; null where there is none to move */
  window: { leftMs: number; rightMs: number } | null;
  onWindow: (window: { leftMs: number; rightMs: number }) => void;
}

const LEFT = 52;
const BOTTOM = 26;
const TOP = 12;
const RIGHT = 16;

const asTick = (at: number) => ({ at, text: String(at).replace('-', '\u2212') });

/** A response over time, with the window whose sides can be dragged or moved by arrow keys. */
export function TimePlot({
  label,
  title,
  values,
  fromMs,
  stepMs,
  range,
  unit,
  colour,
  window: shown,
  onWindow,
}: TimePlotProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [held, setHeld] = useState<'left' | 'right' | null>(null);
  const toMs = fromMs + stepMs * values.length;
  const [w, h] = [size.width - LEFT - RIGHT, size.height - TOP - BOTTOM];
  const x = (ms: number) => LEFT + (w * (ms - fromMs)) / (toMs - fromMs);
  const y = (v: number) =>
    TOP + (h * (range.high - Math.max(range.low, Math.min(range.high, v)))) / (range.high - range.low);
  const ticks = ticksOf(fromMs, toMs);
  const levels = ticksOf(range.low, range.high);
  const move = (clientX: number) => {
    if (!held || !shown) return;
    const ms = fromMs + ((clientX - box.current!.getBoundingClientRect().left - LEFT) / w) * (toMs - fromMs);
    onWindow(
      held === 'left'
        ? { ...shown, leftMs: Math.max(0.2, Math.min(-fromMs, -ms)) }
        : { ...shown, rightMs: Math.max(0.5, Math.min(toMs, ms)) },
    );
  };
  const nudge = (side: 'left' | 'right', key: string) => {
    const by = { ArrowLeft: 1 / 1.1, ArrowRight: 1.1 }[key];
    if (!shown || by === undefined) return;
    if (side === 'right') onWindow({ ...shown, rightMs: Math.min(toMs, Math.max(0.5, shown.rightMs * by)) });
    else onWindow({ ...shown, leftMs: Math.min(-fromMs, Math.max(0.2, shown.leftMs / by)) });
  };
  return (
    <div
      ref={box}
      role="figure"
      aria-label={label}
      style={{ position: 'absolute', inset: 0, touchAction: 'none', userSelect: 'none' }}
      onPointerMove={(e) => move(e.clientX)}
      onPointerUp={() => setHeld(null)}
      onPointerLeave={() => setHeld(null)}
    >
      {w > 60 && h > 40 ? (
        <svg width={size.width} height={size.height} style={{ fontSize: 11.5, fill: 'var(--soft)' }}>
          {ticks.map((t) => (
            <g key={t}>
              <line x1={x(t)} x2={x(t)} y1={TOP} y2={TOP + h} stroke="var(--line-soft)" />
              <text x={x(t)} y={TOP + h + 16} textAnchor="middle">
                {String(t).replace('-', '\u2212')}
              </text>
            </g>
          ))}
          {levels.map((v) => (
            <g key={v}>
              <line x1={LEFT} x2={LEFT + w} y1={y(v)} y2={y(v)} stroke="var(--line-soft)" />
              <text x={LEFT - 6} y={y(v) + 4} textAnchor="end">
                {String(v).replace('-', '\u2212')}
              </text>
            </g>
          ))}
          <text x={LEFT + w - 44} y={TOP + 18} textAnchor="end">
            {unit}, over ms after the arrival
          </text>
          {shown ? (
            <rect
              x={x(-shown.leftMs)}
              width={Math.max(0, x(shown.rightMs) - x(-shown.leftMs))}
              y={TOP}
              height={h}
              fill="var(--kelp)"
              opacity={0.09}
            />
          ) : null}
          <path
            d={pathOf(values, w, (i) => x(fromMs + i * stepMs), y)}
            fill="none"
            stroke={`var(--${colour})`}
            strokeWidth={1.4}
          />
          {shown
            ? (['left', 'right'] as const).map((side) => {
                const ms = side === 'left' ? -shown.leftMs : shown.rightMs;
                return (
                  <g
                    key={side}
                    role="slider"
                    tabIndex={0}
                    aria-label={side === 'left' ? 'Window, left side' : 'Window, right side'}
                    aria-valuenow={Number(ms.toFixed(2))}
                    aria-valuemin={Number(fromMs.toFixed(2))}
                    aria-valuemax={Number(toMs.toFixed(2))}
                    aria-valuetext={`${ms.toFixed(1)} ms`}
                    style={{ cursor: 'ew-resize' }}
                    onPointerDown={(e) => {
                      setHeld(side);
                      e.preventDefault();
                    }}
                    onKeyDown={(e) => nudge(side, e.key)}
                  >
                    <line x1={x(ms)} x2={x(ms)} y1={TOP} y2={TOP + h} stroke="var(--kelp)" strokeWidth={2} />
                    <rect x={x(ms) - 8} y={TOP} width={16} height={h} fill="transparent" />
                    <rect x={x(ms) - 5} y={TOP + 4} width={10} height={22} rx={4} fill="var(--kelp)" />
                  </g>
                );
              })
            : null}
        </svg>
      ) : null}
      <div style={{ position: 'absolute', right: 12, top: 6 }}>
        <SavePlotMenu
          plot={() => ({
            title,
            subtitle: new Date().toLocaleDateString(undefined, { dateStyle: 'medium' }),
            x: {
              from: fromMs,
              to: toMs,
              log: false,
              label: 'ms after the arrival',
              ticks: ticks.map(asTick),
            },
            y: { from: range.low, to: range.high, log: false, label: unit, ticks: levels.map(asTick) },
            lines: [
              {
                label: title,
                colour: '#2b4c7e',
                dash: '',
                x: Float64Array.from(values, (_, i) => fromMs + i * stepMs),
                y: values,
              },
            ],
          })}
        />
      </div>
    </div>
  );
}

/** Least and greatest value of each pixel column, so that no peak is lost. */
function pathOf(
  values: Float32Array,
  width: number,
  x: (i: number) => number,
  y: (v: number) => number,
): string {
  const per = Math.max(1, Math.floor(values.length / Math.max(1, width)));
  let d = '';
  for (let from = 0; from < values.length; from += per) {
    let [low, high] = [Infinity, -Infinity];
    for (let i = from; i < Math.min(values.length, from + per); i++) {
      const v = Number.isFinite(values[i]!) ? values[i]! : -200;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    const at = x(from).toFixed(1);
    d += `${d === '' ? 'M' : 'L'}${at} ${y(low).toFixed(1)}`;
    if (high > low) d += `L${at} ${y(high).toFixed(1)}`;
  }
  return d;
}
