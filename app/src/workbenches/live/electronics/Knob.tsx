import { useRef, useState } from 'react';
import { useKeySteps } from '../../../services/useKeySteps';

interface Props {
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  /** where a double press puts it */
  start: number;
  /** whether equal turns are equal ratios */
  isRatio: boolean;
  text: string;
  /** while it turns */
  onTurn: (value: number) => void;
  /** when it is let go */
  onSettle: (value: number) => void;
}

/** From one end to the other, degrees and px of a drag. */
const TURN_DEG = 270;
const DRAG_PX = 160;

/** A knob: dragged up and down, turned with the arrow keys, put back by a double press. */
export function Knob(props: Props) {
  const { label, value, least, most, step, start, isRatio, text, onTurn, onSettle } = props;
  const held = useRef<{ y: number; share: number } | null>(null);
  const [turned, setTurned] = useState<number | null>(null);
  const steps = useKeySteps(value);
  const now = turned ?? value;
  const shareOf = (v: number) =>
    isRatio ? Math.log(v / least) / Math.log(most / least) : (v - least) / (most - least);
  const valueOf = (share: number) => {
    const s = Math.min(1, Math.max(0, share));
    const v = isRatio ? least * (most / least) ** s : least + s * (most - least);
    return Math.min(most, Math.max(least, Math.round(v / step) * step));
  };
  const turn = (v: number) => {
    setTurned(v);
    onTurn(v);
  };
  const settle = (v: number) => {
    held.current = null;
    setTurned(null);
    onSettle(v);
  };
  const onKey = (event: React.KeyboardEvent) => {
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    const many = event.shiftKey ? 10 : 1;
    const next =
      way !== undefined
        ? isRatio
          ? valueOf(shareOf(steps.now) + (way * many) / 100)
          : valueOf(shareOf(steps.now + way * many * step))
        : event.key === 'Home'
          ? least
          : event.key === 'End'
            ? most
            : null;
    if (next === null) return;
    event.preventDefault();
    settle(steps.took(next));
  };
  const angle = ((shareOf(now) - 0.5) * TURN_DEG * Math.PI) / 180;
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={now}
      aria-valuetext={text}
      title={`${label}: ${text}`}
      onKeyDown={onKey}
      onDoubleClick={() => settle(start)}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { y: event.clientY, share: shareOf(now) };
      }}
      onPointerMove={(event) => {
        if (!held.current) return;
        const next = valueOf(held.current.share + (held.current.y - event.clientY) / DRAG_PX);
        if (next !== now) turn(next);
      }}
      onPointerUp={() => (turned === null ? (held.current = null) : settle(turned))}
      onPointerCancel={() => settle(value)}
      style={{ display: 'flex', alignItems: 'center', gap: 6, cursor: 'ns-resize', touchAction: 'none' }}
    >
      <svg width={26} height={26} viewBox="-13 -13 26 26" aria-hidden="true">
        <circle r={11} fill="var(--stone)" stroke="var(--line)" strokeWidth={1.5} />
        <line
          x1={0}
          y1={0}
          x2={9.5 * Math.sin(angle)}
          y2={-9.5 * Math.cos(angle)}
          stroke="var(--ink)"
          strokeWidth={2.4}
          strokeLinecap="round"
        />
      </svg>
      <span className="mono" style={{ fontSize: 11.5, whiteSpace: 'nowrap' }}>
        {text}
      </span>
    </div>
  );
}
