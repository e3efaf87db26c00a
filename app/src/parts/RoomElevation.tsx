import type { Point } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import type { SpotState } from './RoomPlan';

const SCALE = 100;

interface ElevationProps {
  place: Place;
  stateOf: (spotId: string) => SpotState;
  selected: string | null;
  preview: Point[] | null;
  onSelect: (spotId: string) => void;
}

/** The place from the side, front wall at the left: how high each spot is. */
export function RoomElevation({ place, stateOf, selected, preview, onSelect }: ElevationProps) {
  const [width, height] = [place.size.x * SCALE, place.size.z * SCALE];
  const y = (z: number) => height - z * SCALE;
  const chosen = place.spots.find((s) => s.id === selected);
  return (
    <svg
      viewBox={`-52 -40 ${width + 104} ${height + 82}`}
      style={{ width: '100%', height: '100%' }}
      role="group"
      aria-label={`${place.name} from the side`}
    >
      <text x={0} y={-16} fontSize={14} fill="var(--soft)">
        {place.name}, seen from the side
      </text>
      {Array.from({ length: Math.floor(2 * place.size.z) }, (_, i) => (i + 1) / 2).map((z) => (
        <g key={z}>
          <line x1={0} x2={width} y1={y(z)} y2={y(z)} stroke="var(--line-soft)" />
          <text x={-8} y={y(z) + 4} fontSize={12} textAnchor="end" fill="var(--soft)">
            {z} m
          </text>
        </g>
      ))}
      <rect
        width={width}
        height={height}
        fill="none"
        stroke="var(--stone-ink)"
        strokeWidth={5}
        strokeLinejoin="round"
      />
      {place.seats.map((seat) => (
        <circle
          key={seat.id}
          cx={seat.position.x * SCALE}
          cy={y(seat.position.z)}
          r={9}
          fill="var(--line-soft)"
          stroke="var(--line)"
        />
      ))}
      {place.loudspeakers.map((l) => (
        <rect
          key={l.id}
          x={l.position.x * SCALE - 9}
          y={y(l.position.z) - 12}
          width={18}
          height={24}
          rx={4}
          fill="var(--stone)"
          stroke="var(--stone-ink)"
          opacity={l.fitted ? 1 : 0.35}
        >
          <title>{l.name}</title>
        </rect>
      ))}
      {chosen ? (
        <g>
          <line
            x1={chosen.position.x * SCALE}
            x2={chosen.position.x * SCALE}
            y1={y(chosen.position.z)}
            y2={height}
            stroke="var(--kelp)"
            strokeWidth={1.6}
          />
          <text
            x={chosen.position.x * SCALE + (chosen.position.x > place.size.x / 2 ? -12 : 12)}
            y={height - 12}
            textAnchor={chosen.position.x > place.size.x / 2 ? 'end' : 'start'}
            fontSize={14}
            fill="var(--kelp)"
            fontWeight={700}
          >
            set the stand to {chosen.position.z.toFixed(2)} m
          </text>
        </g>
      ) : null}
      {(preview ?? []).map((p, i) => (
        <circle
          key={i}
          cx={p.x * SCALE}
          cy={y(p.z)}
          r={8}
          fill="none"
          stroke="var(--kelp)"
          strokeDasharray="3 2"
          strokeWidth={1.6}
        />
      ))}
      {preview
        ? null
        : inFront(place.spots, selected).map(({ spot, i }) => {
            const state = stateOf(spot.id);
            const fill = {
              empty: 'var(--card)',
              taken: 'var(--kelp-soft)',
              trouble: 'var(--buoy-soft)',
              now: 'var(--kelp)',
            }[state];
            return (
              <g
                key={spot.id}
                transform={`translate(${spot.position.x * SCALE},${y(spot.position.z)})`}
                style={{ cursor: 'pointer' }}
                onClick={() => onSelect(spot.id)}
              >
                <ellipse
                  rx={13}
                  ry={11}
                  fill={fill}
                  stroke={selected === spot.id ? 'var(--kelp)' : 'var(--soft)'}
                  strokeWidth={selected === spot.id ? 2.6 : 1.4}
                />
                <text
                  textAnchor="middle"
                  y={5}
                  fontSize={13}
                  fontWeight={700}
                  fill={state === 'now' ? 'var(--on-kelp)' : 'var(--ink)'}
                >
                  {i + 1}
                </text>
              </g>
            );
          })}
      <text x={0} y={height + 30} fontSize={13} fill="var(--soft)">
        The front wall is at the left; circles are ears, boxes loudspeakers.
      </text>
    </svg>
  );
}

/** With the chosen one drawn last, so that no other covers it. */
const inFront = (spots: Place['spots'], selected: string | null) =>
  spots
    .map((spot, i) => ({ spot, i }))
    .sort((a, b) => Number(a.spot.id === selected) - Number(b.spot.id === selected));
