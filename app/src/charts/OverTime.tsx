import { useRef } from 'react';
import { useSize } from './useSize';
import { ticksOf } from './chartMath';

export interface OverTimeCurve {
  label: string;
  /** a name of `look.css` */
  colour: string;
  values: Float64Array;
  dashed?: boolean;
}

interface OverTimeProps {
  label: string;
  curves: readonly OverTimeCurve[];
  /** seconds from one value to the next; the first is at 0 */
  stepS: number;
  low: number;
  high: number;
  /** what the values are, written over the plot */
  unit: string;
  /** values at which a line is drawn, and what it says; ordinary ticks when absent */
  ticks?: readonly { at: number; text: string; isWarning?: boolean }[];
  /** a moment that is marked, seconds */
  mark?: { atS: number; text: string } | null;
}

const [LEFT, RIGHT, TOP, BOTTOM] = [58, 18, 40, 30];
const minus = (v: number) => String(+v.toFixed(3)).replace('-', '−');

/** Curves of one kind over time from a moment on, with lines at values that mean something. */
export function OverTime({ label, curves, stepS, low, high, unit, ticks, mark }: OverTimeProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const toS = Math.max(stepS, stepS * ((curves[0]?.values.length ?? 2) - 1));
  const [w, h] = [Math.max(1, width - LEFT - RIGHT), Math.max(1, height - TOP - BOTTOM)];
  const x = (s: number) => LEFT + (w * s) / toS;
  const y = (v: number) => TOP + (h * (high - v)) / (high - low);
  const lines = ticks ?? ticksOf(low, high).map((at) => ({ at, text: minus(at), isWarning: false }));
  const isShort = toS < 1;
  return (
    <div ref={box} style={{ position: 'relative', height: '100%', minHeight: 0, overflow: 'hidden' }}>
      <svg width={width} height={height} role="img" aria-label={label} style={{ display: 'block' }}>
        {ticksOf(0, isShort ? 1000 * toS : toS).map((t) => {
          const at = x(isShort ? t / 1000 : t);
          return (
            <g key={t}>
              <line x1={at} x2={at} y1={TOP} y2={TOP + h} stroke="var(--line-soft)" />
              <text x={at} y={height - 10} textAnchor="middle" fontSize={11.5} fill="var(--soft)">
                {minus(t)}
              </text>
            </g>
          );
        })}
        {lines.map(({ at, text, isWarning }) => (
          <g key={`${at} ${text}`}>
            <line
              x1={LEFT}
              x2={LEFT + w}
              y1={y(at)}
              y2={y(at)}
              stroke={isWarning ? 'var(--buoy)' : 'var(--line-soft)'}
              strokeDasharray={isWarning ? '6 4' : undefined}
            />
            <text
              x={isWarning ? LEFT + w : LEFT - 8}
              y={y(at) + (isWarning ? -5 : 4)}
              textAnchor="end"
              fontSize={11.5}
              fill={isWarning ? 'var(--buoy-text, var(--buoy))' : 'var(--soft)'}
            >
              {text}
            </text>
          </g>
        ))}
        {mark ? (
          <g>
            <line
              x1={x(mark.atS)}
              x2={x(mark.atS)}
              y1={TOP}
              y2={TOP + h}
              stroke="var(--buoy)"
              strokeWidth={2}
            />
            <text
              x={x(mark.atS) + (x(mark.atS) > LEFT + w / 2 ? -6 : 6)}
              y={TOP + 13}
              textAnchor={x(mark.atS) > LEFT + w / 2 ? 'end' : 'start'}
              fontSize={11.5}
              fill="var(--ink)"
            >
              {mark.text}
            </text>
          </g>
        ) : null}
        {curves.map((c) => (
          <path
            key={c.label}
            d={pathOf(c.values, (i) => x(i * stepS), y, low, high, w)}
            fill="none"
            stroke={`var(--${c.colour})`}
            strokeWidth={2}
            strokeDasharray={c.dashed ? '7 5' : undefined}
          />
        ))}
        <text x={14} y={16} fontSize={11.5} fill="var(--soft)">
          {unit}, over {isShort ? 'ms' : 's'} after the direct sound
        </text>
        {curves.length > 1
          ? curves.map((c, i) => (
              <text
                key={c.label}
                x={LEFT + (i * w) / curves.length}
                y={33}
                fontSize={11.5}
                fill={`var(--${c.colour})`}
              >
                {c.label}
              </text>
            ))
          : null}
      </svg>
    </div>
  );
}

/** No more points than pixels: of each pixel what is highest. */
function pathOf(
  values: Float64Array,
  x: (i: number) => number,
  y: (v: number) => number,
  low: number,
  high: number,
  pixels: number,
): string {
  const each = Math.max(1, Math.floor(values.length / Math.max(1, pixels)));
  const out: string[] = [];
  for (let i = 0; i < values.length; i += each) {
    let most = -Infinity;
    for (let k = i; k < Math.min(values.length, i + each); k++) most = Math.max(most, values[k]!);
    const at = Math.min(high, Math.max(low, most));
    out.push(`${out.length === 0 ? 'M' : 'L'}${x(i).toFixed(1)} ${y(at).toFixed(1)}`);
  }
  return out.join('');
}
