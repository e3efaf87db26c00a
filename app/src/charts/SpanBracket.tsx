import { useRef } from 'react';
import { formatHz, frequencyAt, xOf, type PlotView } from './chartMath';

interface Span {
  from: number;
  to: number;
}

/** The span as a bracket under the frequency axis; both ends drag and step with arrow keys (1/12 octave). */
export function SpanBracket({
  view,
  y,
  from,
  to,
  onChange,
}: Span & { view: PlotView; y: number; onChange: (span: Span, done: boolean) => void }) {
  const grabbed = useRef<keyof Span | null>(null);
  const clamp = (x: number) => Math.min(view.x + view.width, Math.max(view.x, x));
  const [a, b] = [clamp(xOf(view, from)), clamp(xOf(view, to))];
  const moved = (end: keyof Span, frequency: number): Span =>
    end === 'from'
      ? { from: Math.min(Math.max(frequency, 20), to / 2), to }
      : { from, to: Math.max(Math.min(frequency, 20000), from * 2) };
  const knob = (end: keyof Span, x: number) => (
    <g
      role="slider"
      tabIndex={0}
      aria-label={end === 'from' ? 'Span from' : 'Span to'}
      aria-valuenow={Math.round(end === 'from' ? from : to)}
      aria-valuetext={formatHz(end === 'from' ? from : to)}
      transform={`translate(${x},${y})`}
      style={{ cursor: 'ew-resize' }}
      onKeyDown={(event) => {
        const way = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 }[event.key];
        if (!way) return;
        event.preventDefault();
        event.stopPropagation();
        onChange(moved(end, (end === 'from' ? from : to) * 2 ** (way / (event.shiftKey ? 48 : 12))), true);
      }}
      onPointerDown={(event) => {
        grabbed.current = end;
        event.currentTarget.setPointerCapture(event.pointerId);
        event.stopPropagation();
      }}
      onPointerMove={(event) => grabbed.current === end && onChange(moved(end, at(event)), false)}
      onPointerUp={(event) => {
        if (grabbed.current !== end) return;
        grabbed.current = null;
        onChange(moved(end, at(event)), true);
      }}
    >
      <circle r={14} fill="transparent" />
      <ellipse rx={7} ry={6} fill="var(--kelp)" />
    </g>
  );
  const at = (event: React.PointerEvent<SVGGElement>) => {
    const rect = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    return frequencyAt(view, event.clientX - rect.left);
  };
  const wide = b - a > 190;
  return (
    <g>
      <path
        d={`M${a} ${y} q0 9 9 9 H${b - 9} q9 0 9 -9`}
        fill="none"
        stroke="var(--kelp)"
        strokeWidth={2.4}
      />
      {wide ? <rect x={(a + b) / 2 - 88} y={y} width={176} height={18} fill="var(--card)" /> : null}
      <text
        x={wide ? (a + b) / 2 : Math.min(b + 14, view.x + view.width - 160)}
        y={y + 13}
        textAnchor={wide ? 'middle' : 'start'}
        fontSize={12.5}
        fill="var(--ink)"
      >
        span {formatHz(from)} to {formatHz(to)}
      </text>
      {knob('from', a)}
      {knob('to', b)}
    </g>
  );
}
