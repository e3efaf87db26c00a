import { memo } from 'react';
import { xOf, yOf, type PlotView } from './chartMath';

export interface ChartMark {
  number: number;
  frequency: number;
  levelDb: number;
  attention?: boolean;
}

/** Where the readout is taken. */
export function Cursor({ view, frequency, levelDb }: { view: PlotView; frequency: number; levelDb: number }) {
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

/** A numbered margin note. */
export const Mark = memo(function Mark({
  view,
  number,
  frequency,
  levelDb,
  attention,
}: ChartMark & { view: PlotView }) {
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
});
