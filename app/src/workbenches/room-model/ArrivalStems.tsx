import type { Arrival } from '@pebble-hall/core/tracing';
import { useRef } from 'react';
import { useSize } from '../../charts/useSize';
import { ticksOf } from '../../charts/chartMath';
import { ARRIVAL_COLOURS, levelOf } from './arrivalLevel';

interface Props {
  arrivals: readonly Arrival[];
  /** levels are against it */
  direct: Arrival;
  chosen: number;
  onChoose: (index: number) => void;
}

const [LEFT, RIGHT, TOP, BOTTOM] = [50, 18, 26, 30];
const LOWEST_DB = -40;
/** By their colours. */
const MET = ['the direct sound', 'one face met', 'two', 'three', 'more'];

/** Every arrival as a stem: its level over when it comes, coloured by how many faces it met. A click takes the nearest. */
export function ArrivalStems({ arrivals, direct, chosen, onChoose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const toMs = Math.max(20, 1000 * arrivals.at(-1)!.laterS * 1.04);
  const top = Math.max(3, ...arrivals.map((a) => levelOf(a, direct)));
  const [w, h] = [Math.max(1, width - LEFT - RIGHT), Math.max(1, height - TOP - BOTTOM)];
  const x = (ms: number) => LEFT + (w * ms) / toMs;
  const y = (db: number) => TOP + (h * (top - Math.max(db, LOWEST_DB))) / (top - LOWEST_DB);
  return (
    <div ref={box} style={{ position: 'relative', height: '100%', overflow: 'hidden' }}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`${arrivals.length} arrivals, level over time`}
        style={{ cursor: 'pointer', display: 'block' }}
        onClick={(event) => {
          const { left } = event.currentTarget.getBoundingClientRect();
          const ms = ((event.clientX - left - LEFT) / w) * toMs;
          const off = (a: Arrival) => Math.abs(1000 * a.laterS - ms);
          onChoose(arrivals.reduce((best, a, i) => (off(a) < off(arrivals[best]!) ? i : best), 0));
        }}
      >
        {ticksOf(0, toMs).map((ms) => (
          <g key={ms}>
            <line x1={x(ms)} x2={x(ms)} y1={TOP} y2={TOP + h} stroke="var(--line-soft)" />
            <text x={x(ms)} y={height - 10} textAnchor="middle" fontSize={11.5} fill="var(--soft)">
              {ms}
            </text>
          </g>
        ))}
        {[0, -10, -20, -30, -40].map((db) => (
          <g key={db}>
            <line x1={LEFT} x2={LEFT + w} y1={y(db)} y2={y(db)} stroke="var(--line-soft)" />
            <text x={LEFT - 8} y={y(db) + 4} textAnchor="end" fontSize={11.5} fill="var(--soft)">
              {db === 0 ? '0' : `\u2212${-db}`}
            </text>
          </g>
        ))}
        {arrivals.map((a, i) => (
          <line
            key={i}
            x1={x(1000 * a.laterS)}
            x2={x(1000 * a.laterS)}
            y1={TOP + h}
            y2={y(levelOf(a, direct))}
            stroke={
              i === chosen
                ? 'var(--buoy)'
                : ARRIVAL_COLOURS[Math.min(a.faces.length, ARRIVAL_COLOURS.length - 1)]
            }
            strokeWidth={i === chosen ? 5 : 2.4}
          />
        ))}
        <text x={14} y={15} fontSize={11.5} fill="var(--soft)">
          dB against the direct sound, 500 Hz to 2 kHz, over ms after it
        </text>
        {MET.map((text, i) => (
          <text
            key={text}
            x={LEFT + w}
            y={TOP + 14 + 16 * i}
            textAnchor="end"
            fontSize={11.5}
            fill={ARRIVAL_COLOURS[i]}
          >
            {text}
          </text>
        ))}
      </svg>
    </div>
  );
}
