import type { Arrival } from '@pebble-hall/core/tracing';
import { useRef } from 'react';
import { useSize } from '../../charts/useSize';
import { ARRIVAL_COLOURS, levelOf } from './arrivalLevel';

interface Props {
  arrivals: readonly Arrival[];
  /** levels are against it */
  direct: Arrival;
  chosen: number;
  onChoose: (index: number) => void;
  /** azimuth in which one looks, radians */
  facing: number;
}

/** Arrivals softer than this have the smallest mark, dB. */
const SOFTEST_DB = -30;

/** Where arrivals come from, around a head seen from above that looks up the page: level ones on the rim, those from straight above or below in the middle. */
export function ArrivalGlobe({ arrivals, direct, chosen, onChoose, facing }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const radius = Math.max(10, Math.min(width / 2 - 90, height / 2 - 16));
  const [cx, cy] = [width / 2, height / 2];
  const at = ({ going }: Arrival) => {
    const up = Math.asin(Math.max(-1, Math.min(1, -going.z)));
    const turn = Math.atan2(-going.y, -going.x) - facing;
    const r = radius * (1 - Math.abs(up) / (Math.PI / 2));
    // ahead is up; the left of the head is on the left
    return { x: cx - r * Math.sin(turn), y: cy - r * Math.cos(turn), isBelow: up < -0.05 };
  };
  const order = [...arrivals.keys()].sort((a, b) => Number(a === chosen) - Number(b === chosen));
  return (
    <div ref={box} style={{ height: '100%', minHeight: 0, overflow: 'hidden' }}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label="Where arrivals come from"
        style={{ display: 'block' }}
      >
        <circle cx={cx} cy={cy} r={radius} fill="none" stroke="var(--line)" />
        <circle cx={cx} cy={cy} r={radius / 2} fill="none" stroke="var(--line-soft)" />
        <path d={`M${cx} ${cy - 8}l6 14h-12z`} fill="var(--soft)" />
        {order.map((i) => {
          const a = arrivals[i]!;
          const { x, y, isBelow } = at(a);
          const share = Math.max(0, 1 - levelOf(a, direct) / SOFTEST_DB);
          const colour =
            i === chosen
              ? 'var(--buoy)'
              : ARRIVAL_COLOURS[Math.min(a.faces.length, ARRIVAL_COLOURS.length - 1)]!;
          return (
            <circle
              key={i}
              cx={x}
              cy={y}
              r={i === chosen ? 7 : 2.5 + 4 * Math.min(1, share)}
              fill={isBelow ? 'var(--card)' : colour}
              stroke={colour}
              strokeWidth={isBelow ? 1.8 : 0.5}
              style={{ cursor: 'pointer' }}
              onClick={() => onChoose(i)}
            />
          );
        })}
        <text x={14} y={18} fontSize={11.5} fill="var(--soft)">
          where from: ahead is up,
        </text>
        <text x={14} y={33} fontSize={11.5} fill="var(--soft)">
          level ones on the rim,
        </text>
        <text x={14} y={48} fontSize={11.5} fill="var(--soft)">
          open ones from below
        </text>
      </svg>
    </div>
  );
}
