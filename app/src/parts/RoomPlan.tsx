import { useRef } from 'react';
import type { Point } from '@pebble-hall/core/geometry';
import type { Loudspeaker, Place } from '@pebble-hall/core/project';

export type SpotState = 'empty' | 'taken' | 'trouble' | 'now';

export interface RoomPlanProps {
  place: Place;
  stateOf: (spotId: string) => SpotState;
  selected?: string | null;
  playing?: string | null;
  onSelect?: (spotId: string) => void;
  /** a spot was dragged to another place; `done` when it was let go */
  onMove?: ((spotId: string, at: { x: number; y: number }, done: boolean) => void) | undefined;
  /** spots that a plan would give */
  preview?: Point[] | null;
  /** lengths drawn between points */
  lines?: PlanLine[];
}

export interface PlanLine {
  from: Point;
  to: Point;
  label: string;
  attention: boolean;
  /** known from the plan only */
  faint: boolean;
}

const SCALE = 100;
const PAD = 46;

/** The place from above: walls, furniture, loudspeakers as they point, spots with their state. Front wall at the left. */
export function RoomPlan({
  place,
  stateOf,
  selected,
  playing,
  onSelect,
  onMove,
  preview = null,
  lines = [],
}: RoomPlanProps) {
  const [width, height] = [place.size.x * SCALE, place.size.y * SCALE];
  const svg = useRef<SVGSVGElement>(null);
  /** the spot under the hand, and whether it was really moved: a click does not shift it */
  const dragging = useRef<{ id: string; x: number; y: number; moved: boolean } | null>(null);
  const pointOf = (event: React.PointerEvent) => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    const within = (v: number, most: number) =>
      Math.round(100 * Math.min(most - 0.1, Math.max(0.1, v))) / 100;
    return { x: within(p.x / SCALE, place.size.x), y: within(p.y / SCALE, place.size.y) };
  };
  const metres = (n: number) => Array.from({ length: Math.floor(n) }, (_, i) => i + 1);
  return (
    <svg
      ref={svg}
      viewBox={`${-PAD} ${-PAD} ${width + 2 * PAD} ${height + 2 * PAD + 14}`}
      style={{ width: '100%', height: '100%' }}
      role="group"
      aria-label={`${place.name} from above`}
    >
      <text x={0} y={-20} fontSize={14} fill="var(--soft)">
        {place.name}, {place.size.x} × {place.size.y} × {place.size.z} m, seen from above
      </text>
      <path d={`M${width - 128} -24 h100 m-100 -5 v10 m100 -10 v10`} stroke="var(--soft)" fill="none" />
      <text x={width - 18} y={-19} fontSize={13} fill="var(--soft)">
        1 m
      </text>
      {metres(place.size.x).map((x) => (
        <line key={`x${x}`} x1={x * SCALE} x2={x * SCALE} y1={0} y2={height} stroke="var(--line-soft)" />
      ))}
      {metres(place.size.y).map((y) => (
        <line key={`y${y}`} x1={0} x2={width} y1={y * SCALE} y2={y * SCALE} stroke="var(--line-soft)" />
      ))}
      {place.furniture.map((f, i) => (
        <Piece key={i} {...f} />
      ))}
      <rect
        width={width}
        height={height}
        fill="none"
        stroke="var(--stone-ink)"
        strokeWidth={5}
        strokeLinejoin="round"
      />
      {place.furniture
        .filter((f) => f.kind === 'window')
        .map((f, i) => (
          <rect
            key={i}
            x={f.x * SCALE}
            y={f.y * SCALE - 4}
            width={f.width * SCALE}
            height={8}
            fill="var(--card)"
            stroke="var(--stone-ink)"
          />
        ))}
      {lines.map((line, i) => (
        <Measure key={i} {...line} at={WRITTEN_AT[i % WRITTEN_AT.length]!} />
      ))}
      {place.loudspeakers.map((l) => (
        <Cabinet key={l.id} loudspeaker={l} playing={playing === l.id} place={place} />
      ))}
      {(preview ?? []).map((p, i) => (
        <circle
          key={i}
          cx={p.x * SCALE}
          cy={p.y * SCALE}
          r={10}
          fill="none"
          stroke="var(--kelp)"
          strokeDasharray="3 2"
          strokeWidth={1.8}
        />
      ))}
      {(preview ? [] : place.spots).map((spot, i) => {
        const state = stateOf(spot.id);
        const look = {
          empty: { fill: 'var(--card)', line: 'var(--soft)', ink: 'var(--ink)' },
          taken: { fill: 'var(--kelp-soft)', line: 'var(--kelp)', ink: 'var(--ink)' },
          trouble: { fill: 'var(--buoy-soft)', line: 'var(--buoy)', ink: 'var(--ink)' },
          now: { fill: 'var(--kelp)', line: 'var(--kelp)', ink: 'var(--on-kelp)' },
        }[state];
        const word = { empty: 'not taken', taken: 'taken', trouble: 'look again', now: 'measuring now' }[
          state
        ];
        return (
          <g
            key={spot.id}
            transform={`translate(${spot.position.x * SCALE},${spot.position.y * SCALE})`}
            role={onSelect ? 'button' : 'img'}
            tabIndex={onSelect ? 0 : undefined}
            aria-label={`${i === 0 ? `${spot.name} 1` : spot.name}, ${word}`}
            aria-pressed={onSelect ? selected === spot.id : undefined}
            style={{
              cursor: onMove ? 'grab' : onSelect ? 'pointer' : undefined,
              touchAction: onMove ? 'none' : undefined,
            }}
            onPointerDown={(event) => {
              if (!onMove || event.button !== 0) return;
              onSelect?.(spot.id);
              dragging.current = { id: spot.id, x: event.clientX, y: event.clientY, moved: false };
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => {
              const held = dragging.current;
              if (held?.id !== spot.id) return;
              held.moved ||= Math.hypot(event.clientX - held.x, event.clientY - held.y) > 4;
              if (held.moved) onMove?.(spot.id, pointOf(event), false);
            }}
            onPointerUp={(event) => {
              const held = dragging.current;
              if (held?.id !== spot.id) return;
              dragging.current = null;
              if (held.moved) onMove?.(spot.id, pointOf(event), true);
            }}
            onClick={() => onSelect?.(spot.id)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' && event.key !== ' ') return;
              event.preventDefault();
              onSelect?.(spot.id);
            }}
          >
            {selected === spot.id ? (
              <ellipse rx={22} ry={19} fill="none" stroke="var(--kelp)" strokeWidth={1.6} opacity={0.6} />
            ) : null}
            <ellipse
              rx={15}
              ry={12.5}
              fill={look.fill}
              stroke={look.line}
              strokeWidth={i === 0 ? 3.2 : 1.8}
              strokeDasharray={state === 'empty' ? '4 3' : undefined}
            />
            <text aria-hidden="true" textAnchor="middle" y={5} fontSize={14} fontWeight={700} fill={look.ink}>
              {i + 1}
            </text>
          </g>
        );
      })}
      <text x={0} y={height + 30} fontSize={13} fill="var(--soft)">
        1 is the home spot, with the heavy ring. It sets level and delay.
      </text>
    </svg>
  );
}

/** Where along its line a length is written; neighbours differ. */
const WRITTEN_AT = [0.58, 0.42, 0.72, 0.5, 0.4, 0.34, 0.64];

/** A length, written near its middle; `at` keeps neighbours apart. */
function Measure({ from, to, label, attention, faint, at }: PlanLine & { at: number }) {
  const [x1, y1, x2, y2] = [from.x * SCALE, from.y * SCALE, to.x * SCALE, to.y * SCALE];
  const colour = attention ? 'var(--buoy)' : faint ? 'var(--soft)' : 'var(--kelp)';
  return (
    <g>
      <line
        x1={x1}
        x2={x2}
        y1={y1}
        y2={y2}
        stroke={colour}
        strokeWidth={attention ? 2.2 : 1.4}
        strokeDasharray={faint ? '3 4' : undefined}
      />
      <text
        x={x1 + at * (x2 - x1)}
        y={y1 + at * (y2 - y1) + 4}
        textAnchor="middle"
        fontSize={12}
        fill={colour}
        stroke="var(--card)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {label}
      </text>
    </g>
  );
}

function Piece({ kind, x, y, width, depth }: Place['furniture'][number]) {
  if (kind === 'window') return null;
  const box = { x: x * SCALE, y: y * SCALE, width: width * SCALE, height: depth * SCALE };
  if (kind === 'rug') return <rect {...box} rx={4} fill="var(--line-soft)" opacity={0.5} />;
  return (
    <g>
      <rect {...box} rx={14} fill="var(--sand)" stroke="var(--line)" strokeWidth={2} />
      {kind === 'sofa' ? (
        <rect
          x={box.x + box.width - 24}
          y={box.y + 6}
          width={18}
          height={box.height - 12}
          rx={8}
          fill="var(--line-soft)"
        />
      ) : null}
    </g>
  );
}

function Cabinet({
  loudspeaker,
  playing,
  place,
}: {
  loudspeaker: Loudspeaker;
  playing: boolean;
  place: Place;
}) {
  const { role, position, aimDeg, name, fitted } = loudspeaker;
  const [x, y] = [position.x * SCALE, position.y * SCALE];
  const below = position.y < place.size.y / 2;
  const fill = playing ? 'var(--kelp)' : 'var(--stone)';
  const long = name.replace('Surround', 'Surr.');
  const beside = role === 'subwoofer' && below;
  const right = position.x < place.size.x / 2;
  return (
    <g opacity={fitted ? 1 : 0.35} role="img" aria-label={name}>
      <g transform={`translate(${x},${y}) rotate(${aimDeg})`}>
        {role === 'subwoofer' ? (
          <>
            <rect
              x={-17}
              y={-17}
              width={34}
              height={34}
              rx={8}
              fill={fill}
              stroke="var(--stone-ink)"
              strokeWidth={1.6}
            />
            <circle r={9} fill="none" stroke="var(--stone-ink)" strokeWidth={1.6} />
          </>
        ) : (
          <path d="M-12 -10 h17 q8 10 0 20 h-17 z" fill={fill} stroke="var(--stone-ink)" strokeWidth={1.6} />
        )}
      </g>
      <text
        x={beside ? x + (right ? 28 : -28) : x}
        y={beside ? y - 10 : role === 'subwoofer' ? y + 34 : below ? y + 32 : y - 20}
        textAnchor={beside ? (right ? 'start' : 'end') : 'middle'}
        fontSize={13}
        fill="var(--ink)"
      >
        {long}
      </text>
    </g>
  );
}
