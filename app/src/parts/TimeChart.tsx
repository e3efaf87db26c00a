import { useEffect, useRef, useState } from 'react';
import { ticksOf } from './chartMath';

export interface TimeChartCurve {
  label: string;
  role: 'measured' | 'predicted';
  /** a name of `look.css` */
  colour: string;
  values: Float32Array;
}

const LEFT = 52;
const BOTTOM = 28;
const TOP = 34;
const RIGHT = 16;

/** Curves over time on one axis, told apart by line: measured solid, predicted dashed. */
export function TimeChart({
  label,
  curves,
  fromMs,
  stepMs,
  unit,
}: {
  label: string;
  curves: TimeChartCurve[];
  fromMs: number;
  stepMs: number;
  unit: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width: Math.floor(width), height: Math.floor(height) });
    });
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const length = curves[0]?.values.length ?? 0;
  const toMs = fromMs + stepMs * length;
  const most = Math.max(0.1, ...curves.map((c) => c.values.reduce((a, b) => Math.max(a, Math.abs(b)), 0)));
  const reach = Math.ceil(most * 5) / 5;
  const [w, h] = [size.width - LEFT - RIGHT, size.height - TOP - BOTTOM];
  const x = (ms: number) => LEFT + (w * (ms - fromMs)) / (toMs - fromMs);
  const y = (v: number) => TOP + (h * (reach - v)) / (2 * reach);
  const path = (values: Float32Array) =>
    Array.from(
      values,
      (v, i) => `${i === 0 ? 'M' : 'L'}${x(fromMs + i * stepMs).toFixed(1)} ${y(v).toFixed(1)}`,
    ).join('');
  const minus = (v: number) => String(v).replace('-', '\u2212');
  return (
    <div ref={box} role="figure" aria-label={label} style={{ position: 'absolute', inset: 0 }}>
      {w > 40 && h > 40 ? (
        <svg width={size.width} height={size.height}>
          {ticksOf(fromMs, toMs).map((ms) => (
            <g key={ms}>
              <line x1={x(ms)} x2={x(ms)} y1={TOP} y2={TOP + h} stroke="var(--line-soft)" />
              <text x={x(ms)} y={TOP + h + 17} fontSize={12} textAnchor="middle" fill="var(--soft)">
                {minus(ms)}
              </text>
            </g>
          ))}
          {ticksOf(-reach, reach).map((v) => (
            <g key={v}>
              <line x1={LEFT} x2={LEFT + w} y1={y(v)} y2={y(v)} stroke="var(--line-soft)" />
              <text x={LEFT - 8} y={y(v) + 4} fontSize={12} textAnchor="end" fill="var(--soft)">
                {minus(v)}
              </text>
            </g>
          ))}
          <line x1={x(0)} x2={x(0)} y1={TOP} y2={TOP + h} stroke="var(--soft)" strokeDasharray="3 4" />
          {curves.map((c) => (
            <path
              key={c.label}
              d={path(c.values)}
              fill="none"
              stroke={`var(--${c.colour})`}
              strokeWidth={1.7}
              strokeDasharray={c.role === 'predicted' ? '7 4' : undefined}
            />
          ))}
          {curves.map((c, i) => (
            <g key={c.label} transform={`translate(${LEFT + 8 + 190 * i}, 18)`}>
              <line
                x2={26}
                stroke={`var(--${c.colour})`}
                strokeWidth={2.2}
                strokeDasharray={c.role === 'predicted' ? '7 4' : undefined}
              />
              <text x={32} y={4} fontSize={12.5} fill="var(--ink)">
                {c.label}
              </text>
            </g>
          ))}
          <text x={LEFT + w} y={TOP + h + 17} fontSize={12} textAnchor="end" fill="var(--soft)">
            {unit}
          </text>
        </svg>
      ) : null}
    </div>
  );
}
