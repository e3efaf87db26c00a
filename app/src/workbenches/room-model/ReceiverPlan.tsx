import { useComputedColorScheme } from '@mantine/core';
import type { Corner } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import type { RoomRun } from '@pebble-hall/core/runs';
import { useMemo } from 'react';
import { heatColour } from '../../charts/heatColour';
import { PlaceDrawing, projectionOf } from '../../drawing';

interface Props {
  place: Place;
  run: RoomRun;
  /** of each receiver; NaN where there is none */
  values: readonly number[];
  text: (value: number) => string;
  /** what the values are */
  label: string;
  chosen: number;
  onChoose: (index: number) => void;
  /** the range of colours; from the values when absent */
  range?: { low: number; high: number };
  /** a difference that is just noticed: what differs by less has one colour */
  noticed?: number;
  /** drawn over the plan, seen from above, with what they are */
  lines?: { ways: readonly Corner[][]; label: string } | null;
}

const [MARGIN, CAPTION, FOOT] = [22, 40, 84];
const STOPS = 24;

/** The place from above with a value at each receiver, as colour and, where there is room, as text. */
export function ReceiverPlan({
  place,
  run,
  values,
  text,
  label,
  chosen,
  onChoose,
  range,
  noticed = 0,
  lines = null,
}: Props) {
  const dark = useComputedColorScheme('light') === 'dark';
  const { width, height } = useMemo(() => projectionOf(place.shape, 'above'), [place.shape]);
  const known = values.filter(Number.isFinite);
  const { low, high } = range ?? coloursOver(known, noticed);
  const shareOf = (v: number) => (high > low ? (v - low) / (high - low) : 0.5);
  const colourOf = (share: number) => `rgb(${heatColour(0.12 + 0.88 * share, dark).join(' ')})`;
  const few = run.receivers.length <= 16;
  // drawn to be read where a wide hall is shown small
  const unit = Math.max(1, Math.max(width, height) / 420);
  return (
    <PlaceDrawing
      place={place}
      live={[]}
      window={[-MARGIN, -CAPTION, width + 2 * MARGIN, height + CAPTION + FOOT]}
      caption=""
      over={({ at }) => (
        <>
          {lines?.ways.map((way, i) => (
            <polyline
              key={`line ${i}`}
              points={way.map((c) => at({ ...c, z: 0 }).join(',')).join(' ')}
              fill="none"
              stroke="var(--buoy)"
              strokeWidth={2.5 * unit}
              strokeDasharray={`${7 * unit} ${4 * unit}`}
              pointerEvents="none"
            />
          ))}
          {run.sources.map((s) => {
            const [x, y] = at(s.position);
            return (
              <g key={s.id} pointerEvents="none">
                <circle cx={x} cy={y} r={7 * unit} fill="var(--kelp)" stroke="var(--card)" strokeWidth={2} />
                <text
                  x={x}
                  y={y - 12 * unit}
                  textAnchor={x < 0.2 * width ? 'start' : x > 0.8 * width ? 'end' : 'middle'}
                  stroke="var(--card)"
                  strokeWidth={3}
                  paintOrder="stroke"
                  fontSize={12 * unit}
                  fill="var(--ink)"
                >
                  {s.kind === 'loudspeaker' ? '' : s.name}
                </text>
              </g>
            );
          })}
          {run.receivers.map((r, i) => {
            const [x, y] = at(r.position);
            // where the next one stands too close, this figure would be written over its own, or over its mark
            const isFree = run.receivers.every((other, k) => {
              const [u, v] = at(other.position);
              const [aside, below] = [Math.abs(u - x) / unit, (v - y) / unit];
              return (
                k === i || aside > 46 || (Math.abs(below) > 15 && (aside > 28 || below < 0 || below > 36))
              );
            });
            const v = values[i]!;
            const isChosen = i === chosen;
            return (
              <g
                key={r.id}
                role="button"
                tabIndex={0}
                aria-pressed={isChosen}
                aria-label={`${r.name}: ${text(v)}`}
                style={{ cursor: 'pointer' }}
                onClick={() => onChoose(i)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  onChoose(i);
                }}
              >
                <title>{`${r.name}: ${text(v)}`}</title>
                <circle
                  cx={x}
                  cy={y}
                  r={(isChosen ? 11 : 9) * unit}
                  fill={Number.isFinite(v) ? colourOf(shareOf(v)) : 'var(--card)'}
                  stroke={isChosen ? 'var(--buoy)' : 'var(--card)'}
                  strokeWidth={isChosen ? 4 : 1.5}
                />
                {(few && isFree) || isChosen ? (
                  <text
                    x={x}
                    y={y + 24 * unit}
                    textAnchor="middle"
                    fontSize={12 * unit}
                    fontWeight={isChosen ? 700 : 400}
                    fill="var(--ink)"
                    stroke="var(--card)"
                    strokeWidth={3}
                    paintOrder="stroke"
                  >
                    {text(v)}
                  </text>
                ) : null}
              </g>
            );
          })}
          {known.length > 0 ? (
            <g transform={`translate(0 ${height + 26})`} pointerEvents="none">
              {Array.from({ length: STOPS }, (_, i) => (
                <rect
                  key={i}
                  x={(i * 0.4 * width) / STOPS}
                  y={0}
                  width={(0.4 * width) / STOPS + 0.5}
                  height={9 * unit}
                  fill={colourOf(i / (STOPS - 1))}
                />
              ))}
              <text x={0} y={24 * unit} fontSize={12 * unit} fill="var(--soft)">
                {text(low)}
              </text>
              <text x={0.4 * width} y={24 * unit} textAnchor="end" fontSize={12 * unit} fill="var(--soft)">
                {text(high)}
              </text>
              <text x={0.4 * width + 12} y={9 * unit} fontSize={12 * unit} fill="var(--soft)">
                {label}
              </text>
              {lines && lines.ways.length > 0 ? (
                <text x={0.4 * width + 12} y={24 * unit} fontSize={12 * unit} fill="var(--soft)">
                  {lines.label}
                </text>
              ) : null}
            </g>
          ) : null}
        </>
      )}
    />
  );
}

/** Colours go from the least to the most, and over twice what is just noticed at least. */
function coloursOver(known: readonly number[], noticed: number): { low: number; high: number } {
  const [low, high] = [Math.min(...known, Infinity), Math.max(...known, -Infinity)];
  const missing = Math.max(0, noticed - (high - low) / 2);
  return { low: low - missing, high: high + missing };
}
