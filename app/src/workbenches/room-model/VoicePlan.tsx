import type { VoiceAtSeat } from '@pebble-hall/core/alignment';
import type { Point } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { PlaceDrawing, projectionOf } from '../../drawing';
import type { HeardAt } from '../../services/modelledChannels';

interface Props {
  place: Place;
  seats: readonly HeardAt[];
  heard: readonly VoiceAtSeat[];
  talkerAt: Point;
  nearM: number;
  /** seats at which loudspeakers are measured */
  measured: readonly { name: string; seat: number }[];
  chosen: number;
  onChoose: (seat: number) => void;
}

const [MARGIN, CAPTION, FOOT] = [22, 40, 96];
const COLOURS: Record<VoiceAtSeat['verdict'], string> = {
  'the voice': 'var(--kelp)',
  'a loudspeaker': 'var(--buoy)',
  'an echo': 'var(--trace-heather)',
  near: 'var(--line)',
};
const WORDS: Record<VoiceAtSeat['verdict'], string> = {
  'the voice': 'the talker',
  'a loudspeaker': 'a loudspeaker',
  'an echo': 'an echo',
  near: 'left out',
};
const VERDICTS = Object.keys(COLOURS) as VoiceAtSeat['verdict'][];

/** From where speech is heard at each seat, from above. */
export function VoicePlan({ place, seats, heard, talkerAt, nearM, measured, chosen, onChoose }: Props) {
  const { width, height, scale } = useScale(place);
  const unit = Math.max(1, Math.max(width, height) / 420);
  return (
    <PlaceDrawing
      place={place}
      live={[]}
      window={[-MARGIN, -CAPTION, width + 2 * MARGIN, height + CAPTION + FOOT]}
      caption=""
      over={({ at }) => {
        const [tx, ty] = at(talkerAt);
        return (
          <>
            <circle
              cx={tx}
              cy={ty}
              r={nearM * scale}
              fill="none"
              stroke="var(--soft)"
              strokeDasharray="5 4"
            />
            <circle cx={tx} cy={ty} r={7 * unit} fill="var(--kelp)" stroke="var(--card)" strokeWidth={2} />
            {seats.map((seat, i) => {
              const [x, y] = at(seat.position);
              const { verdict } = heard[i]!;
              return (
                <g
                  key={seat.id}
                  role="button"
                  tabIndex={0}
                  aria-pressed={i === chosen}
                  aria-label={`${seat.name}: ${WORDS[verdict]}`}
                  style={{ cursor: 'pointer' }}
                  onClick={() => onChoose(i)}
                  onKeyDown={(event) => {
                    if (event.key !== 'Enter' && event.key !== ' ') return;
                    event.preventDefault();
                    onChoose(i);
                  }}
                >
                  <title>{`${seat.name}: ${WORDS[verdict]}`}</title>
                  <circle
                    cx={x}
                    cy={y}
                    r={(i === chosen ? 9 : 6.5) * unit}
                    fill={COLOURS[verdict]}
                    stroke={i === chosen ? 'var(--ink)' : 'var(--card)'}
                    strokeWidth={i === chosen ? 3 : 1.2}
                  />
                </g>
              );
            })}
            {measured.map(({ name, seat }) => {
              const place_ = seats[seat];
              if (!place_) return null;
              const [x, y] = at(place_.position);
              const r = 9 * unit;
              return (
                <rect
                  key={name}
                  x={x - r}
                  y={y - r}
                  width={2 * r}
                  height={2 * r}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.6}
                  pointerEvents="none"
                />
              );
            })}
            <g transform={`translate(0 ${height + 52})`} pointerEvents="none">
              <text x={0} y={-18 * unit} fontSize={11.5 * unit} fill="var(--soft)">
                Heard from:
              </text>
              {VERDICTS.map((verdict, i) => (
                <g key={verdict} transform={`translate(${(i * width) / VERDICTS.length} 0)`}>
                  <circle cx={6} cy={0} r={5 * unit} fill={COLOURS[verdict]} />
                  <text x={10 + 7 * unit} y={4 * unit} fontSize={11.5 * unit} fill="var(--soft)">
                    {WORDS[verdict]}
                  </text>
                </g>
              ))}
            </g>
          </>
        );
      }}
    />
  );
}

/** Of the drawing: its size, and how long a metre is in it. */
function useScale(place: Place) {
  return useMemo(() => {
    const { width, height, at } = projectionOf(place.shape, 'above');
    const [a, b] = [at({ x: 0, y: 0, z: 0 }), at({ x: 1, y: 0, z: 0 })];
    return { width, height, scale: Math.hypot(b[0] - a[0], b[1] - a[1]) };
  }, [place.shape]);
}
