import { useRef } from 'react';
import { isAlike, useKeySteps } from '../services/useKeySteps';
import { formatHz, frequencyAt, levelAt, signedDb, xOf, yOf, type PlotView } from './chartMath';

/** Something on a plot that a hand moves: along the frequencies, and in level where it has one. */
export interface PlotHandle {
  id: string;
  label: string;
  hz: number;
  /** null for one that moves along the frequencies alone: it stands at 0 dB */
  db: number | null;
  /** what its value says, and by how much an arrow key changes it, on a plot that is not in dB */
  value?: { text: string; step: number };
}

interface Props {
  view: PlotView;
  handles: readonly PlotHandle[];
  /** while it moves */
  onMove: (id: string, to: { hz: number; db: number | null }) => void;
  /** when it is let go */
  onSettle: () => void;
}

/** Arrow keys move by so much; with Shift by ten times as much. */
const STEP_OCTAVES = 1 / 48;
const STEP_DB = 0.1;

/** Handles over a plot: dragged, or moved with the arrow keys. */
export function PlotHandles({ view, handles, onMove, onSettle }: Props) {
  const held = useRef<string | null>(null);
  const steps = useKeySteps(Object.fromEntries(handles.map(({ id, hz, db }) => [id, { hz, db }])), isAlike);
  const within = (hz: number) => Math.min(view.toHz, Math.max(view.fromHz, hz));
  return handles.map((h) => (
    <div
      key={h.id}
      role="slider"
      tabIndex={0}
      aria-label={h.label}
      aria-valuemin={view.fromHz}
      aria-valuemax={view.toHz}
      aria-valuenow={h.hz}
      aria-valuetext={h.value?.text ?? `${formatHz(h.hz)}${h.db === null ? '' : `, ${signedDb(h.db)} dB`}`}
      title={`${h.label}: drag it, or use the arrow keys`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        e.stopPropagation();
        held.current = h.id;
      }}
      onPointerMove={(e) => {
        if (held.current !== h.id) return;
        const box = e.currentTarget.offsetParent!.getBoundingClientRect();
        const db = h.db === null ? null : levelAt(view, e.clientY - box.top);
        onMove(h.id, { hz: within(frequencyAt(view, e.clientX - box.left)), db });
      }}
      onPointerUp={() => {
        if (held.current === null) return;
        held.current = null;
        onSettle();
      }}
      onKeyDown={(e) => {
        const many = e.shiftKey ? 10 : 1;
        const octaves = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        const up = { ArrowUp: 1, ArrowDown: -1 }[e.key];
        if (octaves === undefined && (up === undefined || h.db === null)) return;
        e.preventDefault();
        e.stopPropagation();
        const from = steps.now[h.id] ?? h;
        const next = {
          hz: within(from.hz * 2 ** ((octaves ?? 0) * many * STEP_OCTAVES)),
          db: from.db === null ? null : from.db + (up ?? 0) * many * (h.value?.step ?? STEP_DB),
        };
        steps.took({ ...steps.now, [h.id]: next });
        onMove(h.id, next);
        onSettle();
      }}
      style={{
        position: 'absolute',
        left: xOf(view, h.hz) - 12,
        top: yOf(view, Math.min(view.highDb, Math.max(view.lowDb, h.db ?? 0))) - 12,
        width: 24,
        height: 24,
        borderRadius: 12,
        border: '2px solid var(--kelp)',
        background: 'color-mix(in srgb, var(--card) 55%, transparent)',
        cursor: 'move',
        touchAction: 'none',
      }}
    />
  ));
}
