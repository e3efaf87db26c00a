import { useRef, useState } from 'react';
import { useSize } from './useSize';
import { ChartLegend } from './ChartLegend';
import { ticksOf } from './chartMath';
import { ZoomButtons } from './ChartTools';
import { DASH, PRINTED } from './savedResponse';
import { SavePlotMenu } from './SavePlotMenu';

export interface TimeChartCurve {
  label: string;
  role: 'measured' | 'predicted';
  /** a name of `look.css` */
  colour: string;
  values: Float32Array;
}

interface TimeChartProps {
  label: string;
  curves: TimeChartCurve[];
  fromMs: number;
  stepMs: number;
  unit: string;
}

const LEFT = 52;
const BOTTOM = 28;
const TOP = 22;
const RIGHT = 16;
const NEAREST = 16;

const minus = (v: number) => String(v).replace('-', '\u2212');

/** Curves over time on one axis, told apart by line: measured solid, predicted dashed; nearer around time zero by a button. */
export function TimeChart({ label, curves, fromMs, stepMs, unit }: TimeChartProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [nearer, setNearer] = useState(1);
  const length = curves[0]?.values.length ?? 0;
  const toMs = fromMs + stepMs * length;
  const view = { from: fromMs / nearer, to: toMs / nearer };
  const most = Math.max(0.1, ...curves.map((c) => c.values.reduce((a, b) => Math.max(a, Math.abs(b)), 0)));
  const reach = Math.ceil(most * 5) / 5;
  const [w, h] = [size.width - LEFT - RIGHT, size.height - TOP - BOTTOM];
  const x = (ms: number) => LEFT + (w * (ms - view.from)) / (view.to - view.from);
  const y = (v: number) => TOP + (h * (reach - v)) / (2 * reach);
  const first = Math.max(0, Math.floor((view.from - fromMs) / stepMs));
  const last = Math.min(length, Math.ceil((view.to - fromMs) / stepMs) + 1);
  const path = (values: Float32Array) =>
    Array.from(
      values.subarray(first, last),
      (v, i) => `${i === 0 ? 'M' : 'L'}${x(fromMs + (first + i) * stepMs).toFixed(1)} ${y(v).toFixed(1)}`,
    ).join('');
  const times = ticksOf(view.from, view.to);
  const values = ticksOf(-reach, reach);
  return (
    <div style={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <div
        style={{ display: 'flex', alignItems: 'center', gap: 10, padding: '5px 10px 0 14px', minHeight: 32 }}
      >
        <ChartLegend
          traces={curves.map((c) => ({ ...c, id: c.label, levels: new Float64Array(0) }))}
          bands={[]}
          target={false}
        />
        <span style={{ flex: 1 }} />
        <span style={{ display: 'flex', alignItems: 'center', gap: 10, flexShrink: 0 }}>
          <small className="quiet">{unit}</small>
          <SavePlotMenu
            plot={() => ({
              title: label,
              subtitle: new Date().toLocaleDateString(undefined, { dateStyle: 'medium' }),
              x: { ...view, log: false, label: unit, ticks: times.map((at) => ({ at, text: minus(at) })) },
              y: {
                from: -reach,
                to: reach,
                log: false,
                label: 'of the largest as found',
                ticks: values.map((at) => ({ at, text: minus(at) })),
              },
              lines: curves.map((c) => ({
                label: c.label,
                colour: PRINTED[c.colour] ?? '#22292b',
                dash: DASH[c.role],
                x: Float64Array.from({ length: last - first }, (_, i) => fromMs + (first + i) * stepMs),
                y: c.values.subarray(first, last),
              })),
            })}
          />
          <ZoomButtons
            onZoom={(by) => setNearer(Math.min(NEAREST, Math.max(1, by < 1 ? 2 * nearer : nearer / 2)))}
            onWhole={() => setNearer(1)}
          />
        </span>
      </div>
      <div ref={box} role="figure" aria-label={label} style={{ flex: 1, minHeight: 0, overflow: 'hidden' }}>
        {w > 40 && h > 40 ? (
          <svg width={size.width} height={size.height} style={{ display: 'block' }}>
            {times.map((ms) => (
              <g key={ms}>
                <line x1={x(ms)} x2={x(ms)} y1={TOP} y2={TOP + h} stroke="var(--line-soft)" />
                <text x={x(ms)} y={TOP + h + 17} fontSize={12} textAnchor="middle" fill="var(--soft)">
                  {minus(ms)}
                </text>
              </g>
            ))}
            {values.map((v) => (
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
          </svg>
        ) : null}
      </div>
    </div>
  );
}
