import { useRef } from 'react';
import { ticksOf } from '../../charts/chartMath';
import { useSize } from '../../charts/useSize';

export interface DistancePoint {
  name: string;
  /** from the source, in the unit of the drawing */
  distance: number;
  /** NaN where there is none */
  value: number;
  /** standard error */
  error: number;
}

interface Props {
  label: string;
  /** what is drawn, with its unit */
  caption: string;
  distanceUnit: string;
  points: readonly DistancePoint[];
  text: (value: number) => string;
  chosen: number;
  onChoose: (index: number) => void;
  /** what is expected at a distance, and how that line is called; null for nothing */
  expected: { name: string; at: (distance: number) => number } | null;
}

const [LEFT, RIGHT, TOP, BOTTOM] = [52, 18, 34, 40];
const STEPS = 60;

/** A figure over the distance from the source: every receiver with its error, and what a hall is expected to give. */
export function DistancePlot(props: Props) {
  const { label, caption, distanceUnit, points, text, chosen, onChoose, expected } = props;
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const far = Math.max(1, ...points.map((p) => p.distance)) * 1.05;
  const known = points.filter((p) => Number.isFinite(p.value));
  const near = Math.max(0.02 * far, Math.min(...known.map((p) => p.distance)));
  const line = expected
    ? Array.from({ length: STEPS + 1 }, (_, i) => near + ((far - near) * i) / STEPS).map((d) => ({
        d,
        v: expected.at(d),
      }))
    : [];
  const all = [
    ...known.flatMap((p) => [p.value - 2 * p.error, p.value + 2 * p.error]),
    ...line.map((p) => p.v),
  ].filter(Number.isFinite);
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = Math.max(0.08 * (high - low), 1e-3 * Math.max(1, Math.abs(high)));
  const [from, to] = [low - room, high + room];
  const x = (d: number) => LEFT + (d / far) * (width - LEFT - RIGHT);
  const y = (v: number) => TOP + ((to - v) / (to - from)) * (height - TOP - BOTTOM);
  return (
    <div ref={box} style={{ position: 'relative', height: '100%', minHeight: 0, overflow: 'hidden' }}>
      <svg width={width} height={height} role="group" aria-label={label}>
        {ticksOf(from, to).map((v) => (
          <g key={v}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(v)} y2={y(v)} stroke="var(--line-soft)" />
            <text x={LEFT - 6} y={y(v) + 4} textAnchor="end" fontSize={11.5} fill="var(--soft)">
              {text(v).replace(/ .*/, '')}
            </text>
          </g>
        ))}
        {ticksOf(0, far).map((d) => (
          <text
            key={d}
            x={x(d)}
            y={height - BOTTOM + 18}
            textAnchor="middle"
            fontSize={11.5}
            fill="var(--soft)"
          >
            {d}
          </text>
        ))}
        <text x={LEFT - 38} y={18} fontSize={11.5} fill="var(--soft)">
          {caption}
        </text>
        <text x={width - RIGHT} y={height - 6} textAnchor="end" fontSize={11.5} fill="var(--soft)">
          {`from the source, ${distanceUnit}`}
        </text>
        {expected && line.length > 0 ? (
          <>
            <path
              d={`M${line.map(({ d, v }) => `${x(d).toFixed(1)} ${y(v).toFixed(1)}`).join('L')}`}
              fill="none"
              stroke="var(--trace-slate)"
              strokeWidth={1.6}
              strokeDasharray="2 4"
            />
            <text x={width - RIGHT} y={18} textAnchor="end" fontSize={11.5} fill="var(--soft)">
              {`dotted: ${expected.name}`}
            </text>
          </>
        ) : null}
        {points.map((p, i) =>
          Number.isFinite(p.value) ? (
            <g
              key={p.name}
              role="button"
              tabIndex={0}
              aria-pressed={i === chosen}
              aria-label={`${p.name}, ${p.distance.toFixed(1)} ${distanceUnit}: ${text(p.value)}`}
              style={{ cursor: 'pointer' }}
              onClick={() => onChoose(i)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                onChoose(i);
              }}
            >
              <title>{`${p.name}: ${text(p.value)}`}</title>
              <circle cx={x(p.distance)} cy={y(p.value)} r={13} fill="transparent" />
              <line
                x1={x(p.distance)}
                x2={x(p.distance)}
                y1={y(p.value - 2 * p.error)}
                y2={y(p.value + 2 * p.error)}
                stroke="var(--trace-kelp)"
                strokeWidth={1.4}
              />
              <circle
                cx={x(p.distance)}
                cy={y(p.value)}
                r={i === chosen ? 6.5 : 4.5}
                fill={i === chosen ? 'var(--buoy)' : 'var(--trace-kelp)'}
                stroke="var(--card)"
                strokeWidth={1.5}
              />
            </g>
          ) : null,
        )}
      </svg>
    </div>
  );
}
