import type { TargetHandle } from '@pebble-hall/core/correct';
import { memo, useRef } from 'react';
import { isAlike, useKeySteps } from '../services/useKeySteps';
import { formatDb, formatHz, frequencyAt, levelAt, xOf, yOf, type PlotView } from './chartMath';

export interface HandleEvents {
  handles: TargetHandle[];
  /** dB between a handle's own level and where it stands in the plot */
  offsetDb: number;
  /** dB that come on top of the handles at a frequency */
  onTopDb?: (frequency: number) => number;
  selected: number | null;
  onSelect: (index: number) => void;
  /** `done` when the hand lets go; until then nothing need be kept */
  onMove: (index: number, handle: TargetHandle, done: boolean) => void;
  onAdd: (frequency: number, levelDb: number) => void;
  onRemove: (index: number) => void;
}

const LOWEST = 20;
const HIGHEST = 20000;
const MOST_DB = 24;
/** A handle that lies further outside the plot than this, px, is not drawn. */
const EDGE = 8;

/** Handles of the target curve: drag, arrow keys (Shift for fine steps), Delete. */
export function ChartHandles({
  view,
  handles,
  offsetDb,
  onTopDb = () => 0,
  selected,
  onSelect,
  onMove,
  onRemove,
}: HandleEvents & { view: PlotView }) {
  const grabbed = useRef<{
    index: number;
    x: number;
    y: number;
    handle: TargetHandle;
    moved: boolean;
  } | null>(null);
  const steps = useKeySteps(handles, isAlike);
  const bounded = (index: number, frequency: number, levelDb: number, among = handles): TargetHandle => {
    // a handle keeps its place between its neighbours, a twelfth of an octave off
    const sorted = among.map((h) => h.frequency).filter((_, i) => i !== index);
    const own = among[index]!.frequency;
    const below = Math.max(LOWEST, ...sorted.filter((f) => f < own).map((f) => f * 2 ** (1 / 12)));
    const above = Math.min(HIGHEST, ...sorted.filter((f) => f > own).map((f) => f / 2 ** (1 / 12)));
    return {
      frequency: Math.min(above, Math.max(below, frequency)),
      levelDb: Math.round(10 * Math.min(MOST_DB, Math.max(-MOST_DB, levelDb))) / 10,
    };
  };
  /** The handle goes as far as the hand does from where it was grabbed: a press alone moves nothing. */
  const drag = (event: React.PointerEvent<SVGGElement>, index: number, done: boolean) => {
    const from = grabbed.current;
    if (from?.index !== index) return;
    const [x, y] = [event.clientX - from.x, event.clientY - from.y];
    if (x !== 0 || y !== 0) from.moved = true;
    if (done) grabbed.current = null;
    if (!from.moved) return;
    const f = frequencyAt(view, xOf(view, from.handle.frequency) + x);
    onMove(index, bounded(index, f, from.handle.levelDb + levelAt(view, y) - levelAt(view, 0)), done);
  };
  /** The hand was taken off by something else: what is stored stands. */
  const letGo = (index: number) => {
    const from = grabbed.current;
    grabbed.current = null;
    if (from?.index === index && from.moved) onMove(index, from.handle, false);
  };
  const key = (event: React.KeyboardEvent, index: number) => {
    const { now } = steps;
    const { frequency, levelDb } = now[index] ?? handles[index]!;
    const octave = event.shiftKey ? 1 / 48 : 1 / 12;
    const step = event.shiftKey ? 0.1 : 0.5;
    const next = {
      ArrowLeft: [frequency / 2 ** octave, levelDb],
      ArrowRight: [frequency * 2 ** octave, levelDb],
      ArrowUp: [frequency, levelDb + step],
      ArrowDown: [frequency, levelDb - step],
    }[event.key];
    if (next) {
      const moved = bounded(index, next[0]!, next[1]!, now[index] ? now : handles);
      steps.took(now.map((h, i) => (i === index ? moved : h)));
      onMove(index, moved, true);
    } else if (event.key === 'Delete' || event.key === 'Backspace') onRemove(index);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <>
      {handles.map((handle, index) => {
        const [x, y] = [
          xOf(view, handle.frequency),
          yOf(view, handle.levelDb + offsetDb + onTopDb(handle.frequency)),
        ];
        if (x < view.x - 1 || x > view.x + view.width + 1) return null;
        // where the curve leaves the plot, as a subwoofer's does in the highs, only the one in hand is kept at the edge
        const outside = y < view.y - EDGE || y > view.y + view.height + EDGE;
        if (outside && selected !== index) return null;
        return (
          <g
            key={index}
            role="slider"
            tabIndex={0}
            aria-label={`Target handle ${index + 1}`}
            aria-valuenow={handle.levelDb}
            aria-valuetext={`${formatHz(handle.frequency)}, ${formatDb(handle.levelDb)}`}
            transform={`translate(${x},${Math.min(view.y + view.height, Math.max(view.y, y))})`}
            style={{ cursor: 'grab' }}
            onFocus={() => onSelect(index)}
            onKeyDown={(event) => key(event, index)}
            onPointerDown={(event) => {
              grabbed.current = { index, x: event.clientX, y: event.clientY, handle, moved: false };
              event.currentTarget.setPointerCapture(event.pointerId);
              event.stopPropagation();
              onSelect(index);
            }}
            onPointerMove={(event) => drag(event, index, false)}
            onPointerUp={(event) => drag(event, index, true)}
            onPointerCancel={() => letGo(index)}
            onLostPointerCapture={() => letGo(index)}
            onDoubleClick={(event) => event.stopPropagation()}
          >
            <Knob selected={selected === index} />
          </g>
        );
      })}
    </>
  );
}

/** What is seen of a handle, and more around it for a finger. */
const Knob = memo(function Knob({ selected }: { selected: boolean }) {
  return (
    <>
      <circle r={14} fill="transparent" />
      <ellipse
        rx={8}
        ry={6.5}
        fill="var(--card)"
        stroke={selected ? 'var(--kelp)' : 'var(--target)'}
        strokeWidth={selected ? 3 : 2}
      />
    </>
  );
});
