import { VOICE_BOUND, voiceBoundDb, type VoiceAtSeat } from '@pebble-hall/core/alignment';
import { useRef } from 'react';
import { useSize } from '../../charts/useSize';

interface Props {
  now: readonly VoiceAtSeat[];
  then: readonly VoiceAtSeat[];
  names: readonly string[];
  /** of each loudspeaker: its name, and the seat that it is measured at */
  loudspeakers: readonly { name: string; seat: number }[];
  chosen: number;
  onChoose: (seat: number) => void;
}

const [LEFT, RIGHT, TOP, BOTTOM] = [50, 18, 44, 32];
const [FROM_MS, TO_MS] = [-40, 90];
const [LOW, HIGH] = [-30, 30];
/** From one label to the next, pixels. */
const LABEL = 15;
const minus = (v: number) => String(v).replace('-', '−');

/** The window in which a voice is heard first: level against delay relative to the talker, each seat as it is now and as it would be. */
export function VoiceWindow({ now, then, names, loudspeakers, chosen, onChoose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const [w, h] = [Math.max(1, width - LEFT - RIGHT), Math.max(1, height - TOP - BOTTOM)];
  const x = (ms: number) =>
    LEFT + (w * (Math.min(TO_MS, Math.max(FROM_MS, ms)) - FROM_MS)) / (TO_MS - FROM_MS);
  const y = (db: number) => TOP + (h * (HIGH - Math.min(HIGH, Math.max(LOW, db)))) / (HIGH - LOW);
  const bound = [
    [FROM_MS, voiceBoundDb(-1)],
    [1, voiceBoundDb(0.0009)],
    ...VOICE_BOUND.map((b) => [1000 * b.laterS, b.louderDb]),
    [TO_MS, voiceBoundDb(1)],
  ] as [number, number][];
  const edge = bound.map(([ms, db]) => `${x(ms).toFixed(1)},${y(db).toFixed(1)}`).join(' ');
  const dot = (s: VoiceAtSeat) => ({ cx: x(1000 * s.laterS), cy: y(s.louderDb) });
  const labelX = x(42);
  // one below the other, none over another
  let below = TOP;
  const labels = loudspeakers
    .flatMap(({ name, seat }) => {
      const s = then[seat];
      return s && s.by >= 0 ? [{ name, ...dot(s) }] : [];
    })
    .sort((a, b) => a.cy - b.cy)
    .map((l) => {
      below = Math.max(below + LABEL, l.cy - (LABEL * (loudspeakers.length - 1)) / 2);
      return { ...l, at: below };
    });
  return (
    <div ref={box} style={{ height: '100%', minHeight: 0, overflow: 'hidden' }}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label="Level over delay against the talker"
        style={{ display: 'block' }}
      >
        <polygon
          points={`${edge} ${x(TO_MS)},${y(LOW)} ${x(FROM_MS)},${y(LOW)}`}
          fill="var(--kelp-soft)"
          opacity={0.6}
        />
        {[-40, -20, 0, 20, 40, 60, 80].map((ms) => (
          <g key={ms}>
            <line
              x1={x(ms)}
              x2={x(ms)}
              y1={TOP}
              y2={TOP + h}
              stroke={ms === 0 ? 'var(--line)' : 'var(--line-soft)'}
            />
            <text x={x(ms)} y={height - 12} textAnchor="middle" fontSize={11.5} fill="var(--soft)">
              {minus(ms)}
            </text>
          </g>
        ))}
        {[-30, -20, -10, 0, 10, 20, 30].map((db) => (
          <g key={db}>
            <line
              x1={LEFT}
              x2={LEFT + w}
              y1={y(db)}
              y2={y(db)}
              stroke={db === 0 ? 'var(--line)' : 'var(--line-soft)'}
            />
            <text x={LEFT - 8} y={y(db) + 4} textAnchor="end" fontSize={11.5} fill="var(--soft)">
              {minus(db)}
            </text>
          </g>
        ))}
        <polyline points={edge} fill="none" stroke="var(--kelp)" strokeWidth={2} />
        <text x={14} y={16} fontSize={11.5} fill="var(--soft)">
          dB of the loudspeakers against the talker, over ms that they come later
        </text>
        <text x={14} y={33} fontSize={11.5} fill="var(--soft)">
          open: as it is set; filled: as proposed; green: the voice is heard (after Haas 1951)
        </text>
        {now.map((s, i) =>
          s.by >= 0 && s.verdict !== 'near' ? (
            <circle key={i} {...dot(s)} r={3} fill="none" stroke="var(--soft)" strokeWidth={1.2} />
          ) : null,
        )}
        {then.map((s, i) =>
          s.by >= 0 && s.verdict !== 'near' ? (
            <circle
              key={i}
              {...dot(s)}
              r={i === chosen ? 7 : 4}
              fill={s.verdict === 'the voice' ? 'var(--kelp)' : 'var(--buoy)'}
              stroke={i === chosen ? 'var(--ink)' : 'none'}
              strokeWidth={2}
              style={{ cursor: 'pointer' }}
              onClick={() => onChoose(i)}
            >
              <title>{names[i]}</title>
            </circle>
          ) : null,
        )}
        {labels.map(({ name, cx, cy, at }) => (
          <g key={name} pointerEvents="none">
            <rect
              x={cx - 5}
              y={cy - 5}
              width={10}
              height={10}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.6}
            />
            <line x1={cx + 5} y1={cy} x2={labelX - 6} y2={at - 4} stroke="var(--soft)" strokeWidth={0.8} />
            <text x={labelX} y={at} fontSize={11.5} fill="var(--ink)">
              {name}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
