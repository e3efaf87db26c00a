import { memo } from 'react';
import { useAlike } from '../services/useDerived';
import type { ChartBand, ChartTrace } from './drawTraces';

interface ChartLegendProps {
  traces: ChartTrace[];
  bands: ChartBand[];
  target: boolean;
  /** on to a second line rather than cut off */
  wraps?: boolean;
}

/** Which line is which: roles are told by the kind of line. Drawn anew when a name changes, not when a curve moves. */
export function ChartLegend({ traces, bands, target, wraps = false }: ChartLegendProps) {
  // a curve without a name belongs to the one before it
  const named = traces.filter((t) => t.label !== '');
  const lines = useAlike(named.map(({ id, label, colour, role }) => ({ id, label, colour, role })));
  const areas = useAlike(bands.map(({ id, label, colour }) => ({ id, label, colour })));
  return <Lines lines={lines} areas={areas} target={target} wraps={wraps} />;
}

interface LinesProps {
  lines: Pick<ChartTrace, 'id' | 'label' | 'colour' | 'role'>[];
  areas: Pick<ChartBand, 'id' | 'label' | 'colour'>[];
  target: boolean;
  wraps: boolean;
}

const Lines = memo(function Lines({ lines, areas, target, wraps }: LinesProps) {
  const dash = { measured: undefined, predicted: '7 4', reference: '2 4', noise: undefined };
  return (
    <ul
      aria-label="Legend"
      style={{
        display: 'flex',
        columnGap: 14,
        rowGap: 1,
        flexWrap: wraps ? 'wrap' : 'nowrap',
        listStyle: 'none',
        margin: 0,
        padding: 0,
        fontSize: 12.5,
        overflow: 'hidden',
        whiteSpace: 'nowrap',
        minWidth: 0,
      }}
    >
      {lines.map(({ id, label, colour, role }) => (
        <li key={id} style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={26} height={8}>
            <line
              x1={0}
              x2={26}
              y1={4}
              y2={4}
              stroke={`var(--${colour})`}
              strokeWidth={role === 'noise' ? 1.2 : 2.2}
              strokeDasharray={dash[role]}
            />
          </svg>
          {label}
        </li>
      ))}
      {areas.map(({ id, label, colour }) => (
        <li key={id} style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={22} height={10}>
            <rect width={22} height={10} rx={2} fill={`var(--${colour})`} opacity={0.2} />
          </svg>
          {label}
        </li>
      ))}
      {target ? (
        <li style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <svg width={26} height={10}>
            <line x1={0} x2={26} y1={5} y2={5} stroke="var(--target)" strokeWidth={9} opacity={0.3} />
            <line x1={0} x2={26} y1={5} y2={5} stroke="var(--target)" strokeWidth={1.4} />
          </svg>
          target
        </li>
      ) : null}
    </ul>
  );
});
