import { memo, useRef } from 'react';
import { isAlike, useKeySteps } from '../services/useKeySteps';
import { formatHz, frequencyAt, xOf, type PlotView } from './chartMath';

interface Span {
  from: number;
  to: number;
}

/** The span as a bracket under the frequency axis; both ends drag and step with arrow keys (1/12 octave). */
export const SpanBracket = memo(function SpanBracket({
  view,
  y,
  from,
  to,
  onChange,
}: Span & { view: PlotView; y: number; onChange: (span: Span, end: keyof Span, done: boolean) => void }) {
  const grabbed = useRef<{ end: keyof Span; span: Span } | null>(null);
  const steps = useKeySteps<Span>({ from, to }, isAlike);
  const clamp = (x: number) => Math.min(view.x + view.width, Math.max(view.x, x));
  const [a, b] = [clamp(xOf(view, from)), clamp(xOf(view, to))];
  const moved = (end: keyof Span, frequency: number, now: Span = { from, to }): Span =>
    end === 'from'
      ? { from: Math.min(Math.max(frequency, 20), now.to / 2), to: now.to }
      : { from: now.from, to: Math.max(Math.min(frequency, 20000), now.from * 2) };
  /** The hand was taken off by something else: what is stored stands. */
  const letGo = (end: keyof Span) => {
    const { current } = grabbed;
    grabbed.current = null;
    if (current?.end === end) onChange(current.span, end, false);
  };
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
        const { now } = steps;
        const next = moved(end, now[end] * 2 ** (way / (event.shiftKey ? 48 : 12)), now);
        onChange(steps.took(next), end, true);
      }}
      onPointerDown={(event) => {
        grabbed.current = { end, span: { from, to } };
        event.currentTarget.setPointerCapture(event.pointerId);
        event.stopPropagation();
      }}
      onPointerMove={(event) => grabbed.current?.end === end && onChange(moved(end, at(event)), end, false)}
      onPointerUp={(event) => {
        if (grabbed.current?.end !== end) return;
        grabbed.current = null;
        onChange(moved(end, at(event)), end, true);
      }}
      onPointerCancel={() => letGo(end)}
      onLostPointerCapture={() => letGo(end)}
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
});
