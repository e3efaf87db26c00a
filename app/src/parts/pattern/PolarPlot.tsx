const SIZE = 340;
const MIDDLE = SIZE / 2;
const RADIUS = 140;
/** dB from the edge to the middle. */
export const POLAR_DEEP_DB = 36;
const RINGS = [0, -6, -12, -18, -24, -30];

export interface PolarCurve {
  name: string;
  colour: string;
  /** dB against the axis, each degree from -180 to 180 */
  db: Float64Array;
}

/** Level over all directions of a plane, the axis upwards, to the left where angles are positive. */
export function PolarPlot({ curves, label }: { curves: PolarCurve[]; label: string }) {
  const at = (deg: number, db: number): string => {
    const r = RADIUS * Math.max(0, 1 + Math.min(3, db) / POLAR_DEEP_DB);
    const angle = (deg * Math.PI) / 180;
    return `${(MIDDLE - r * Math.sin(angle)).toFixed(1)} ${(MIDDLE - r * Math.cos(angle)).toFixed(1)}`;
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label={label}
      style={{ width: '100%', height: '100%' }}
    >
      {RINGS.map((db) => (
        <circle
          key={db}
          cx={MIDDLE}
          cy={MIDDLE}
          r={RADIUS * (1 + db / POLAR_DEEP_DB)}
          fill="none"
          stroke={db === -6 ? 'var(--line)' : 'var(--line-soft)'}
        />
      ))}
      {[0, 30, 60, 90, 120, 150].map((deg) => (
        <path key={deg} d={`M${at(deg, 0)}L${at(deg + 180, 0)}`} stroke="var(--line-soft)" />
      ))}
      {[0, 90, 180, -90].map((deg) => {
        const [x, y] = at(deg, 3).split(' ').map(Number) as [number, number];
        return (
          <text
            key={deg}
            x={x}
            y={y + (deg === 180 ? 10 : deg === 0 ? -2 : 4)}
            fontSize={11.5}
            textAnchor={deg === 90 ? 'end' : deg === -90 ? 'start' : 'middle'}
            fill="var(--soft)"
          >
            {Math.abs(deg)}°
          </text>
        );
      })}
      {RINGS.filter((db) => db === -6 || db === -18).map((db) => (
        <text
          key={db}
          x={MIDDLE + 3}
          y={MIDDLE - RADIUS * (1 + db / POLAR_DEEP_DB) - 2}
          fontSize={10.5}
          fill="var(--soft)"
        >
          {db} dB
        </text>
      ))}
      {curves.map(({ name, colour, db }) => (
        <path
          key={name}
          d={`M${Array.from(db, (v, i) => at(i - 180, v)).join('L')}Z`}
          fill="none"
          stroke={colour}
          strokeWidth={2.2}
          strokeDasharray="8 5"
        />
      ))}
    </svg>
  );
}
