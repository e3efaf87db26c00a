import type { Corner, Point } from '@pebble-hall/core/geometry';
import type { AlignStep, Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { PlaceDrawing, projectionOf, type Projection } from '../../drawing';
import type { AlignedPoint } from '../../services/alignSources';
import { percent, shortOf } from '../../words/alignWords';
import type { Meets } from './useMeeting';

interface Props {
  project: Project;
  step: AlignStep;
  points: readonly AlignedPoint[];
  /** sum efficiency at each; NaN where the two share nothing */
  efficiency: Float64Array;
  chosen: number;
  onPoint: (index: number) => void;
  /** null while it is worked out, and where a source is no channel of the plan */
  meets: Meets | null;
}

/** Around the drawing, in its units. */
const [MARGIN, CAPTION] = [14, 40];
/** Lost of the sum, dB: up to each of these, then more. */
const STEPS_DB = [0.5, 1, 3];
const COLOURS = [
  'var(--kelp)',
  'color-mix(in srgb, var(--kelp) 55%, var(--card))',
  'var(--trace-gorse)',
  'var(--buoy)',
];
const stepOf = (efficiency: number): number => {
  const lost = shortOf(efficiency);
  const at = STEPS_DB.findIndex((db) => lost <= db);
  return at < 0 ? STEPS_DB.length : at;
};
const LINES = [
  { key: 'equallyLoud', text: 'equally loud', dash: undefined, colour: 'var(--ink)' },
  { key: 'together', text: 'arrive together', dash: '7 5', colour: 'var(--ink)' },
  { key: 'between', text: 'as far from both', dash: '1.5 5', colour: 'var(--soft)' },
] as const;

/** The plan with what is lost at each seat, and the lines on which the two meet. */
export function WhereView({ project, step, points, efficiency, chosen, onPoint, meets }: Props) {
  const { place } = project;
  const { width, height } = useMemo(() => projectionOf(place.shape, 'above'), [place.shape]);
  const seats = points.flatMap((point, i) =>
    point.position ? [{ point, position: point.position, i }] : [],
  );
  const dot = (projection: Projection, { point, position, i }: (typeof seats)[number]) => {
    const [u, v] = projection.at(position);
    const e = efficiency[i]!;
    const isHere = point.id === 'place';
    const said = Number.isNaN(e) ? 'no shared band' : `${percent(e)}, ${shortOf(e).toFixed(1)} dB lost`;
    return (
      <g
        key={point.id ?? i}
        role="button"
        tabIndex={0}
        aria-pressed={i === chosen}
        aria-label={`${point.name}: ${said}`}
        style={{ cursor: 'pointer' }}
        onClick={() => onPoint(i)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onPoint(i);
        }}
      >
        <title>{`${point.name}: ${said}`}</title>
        {isHere ? (
          <path
            d={`M${u} ${v - 12}L${u + 12} ${v}L${u} ${v + 12}L${u - 12} ${v}Z`}
            fill={Number.isNaN(e) ? 'none' : COLOURS[stepOf(e)]}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        ) : (
          <circle
            cx={u}
            cy={v}
            r={i === chosen ? 10 : 7}
            fill={Number.isNaN(e) ? 'none' : COLOURS[stepOf(e)]}
            stroke={i === chosen ? 'var(--ink)' : 'var(--soft)'}
            strokeWidth={i === chosen ? 2.4 : 0.8}
          />
        )}
      </g>
    );
  };
  return (
    <div className="plot" style={{ display: 'grid', gridTemplateRows: 'minmax(0, 1fr) auto' }}>
      <PlaceDrawing
        place={place}
        live={[]}
        window={[-MARGIN, -CAPTION, width + 2 * MARGIN, height + CAPTION + MARGIN]}
        under={() => null}
        over={(projection) => (
          <>
            {meets
              ? LINES.map(({ key, dash, colour }) => (
                  <path
                    key={key}
                    d={pathOf(meets.lines[key], meets.grid.points, projection)}
                    fill="none"
                    stroke={colour}
                    strokeWidth={2}
                    strokeDasharray={dash}
                    pointerEvents="none"
                  />
                ))
              : null}
            {seats.map((seat) => dot(projection, seat))}
            {meets?.places.map((p, i) =>
              isAt(step, p.at) ? null : <Offered key={i} number={i + 1} at={projection.at(p.at)} />,
            )}
          </>
        )}
        caption=""
      />
      <div
        className="chips quiet"
        style={{ fontSize: 12, gap: 14, padding: '2px 8px 6px', flexWrap: 'wrap' }}
      >
        {COLOURS.map((colour, i) => (
          <span key={colour} style={{ display: 'inline-flex', alignItems: 'center', gap: 5 }}>
            <svg width={12} height={12} aria-hidden="true">
              <circle cx={6} cy={6} r={5} fill={colour} />
            </svg>
            {i < STEPS_DB.length ? `${STEPS_DB[i]} dB lost at most` : 'more'}
          </span>
        ))}
        {meets
          ? LINES.filter(({ key }) => meets.lines[key].length > 0).map(({ key, text, dash, colour }) => (
              <span key={key} style={{ display: 'inline-flex', alignItems: 'center', gap: 5 }}>
                <svg width={26} height={8} aria-hidden="true">
                  <path d="M0 4H26" stroke={colour} strokeWidth={2} strokeDasharray={dash} />
                </svg>
                {text}
              </span>
            ))
          : null}
      </div>
    </div>
  );
}

/** Within this they are the same place, metres. */
const SAME_M = 0.05;
export const isAt = ({ alignAt }: AlignStep, { x, y }: Corner): boolean =>
  alignAt !== null && Math.hypot(alignAt.position.x - x, alignAt.position.y - y) < SAME_M;

/** A place that is offered, by its number in the list beside the drawing. */
function Offered({ number, at: [u, v] }: { number: number; at: [number, number] }) {
  return (
    <g pointerEvents="none">
      <path
        d={`M${u} ${v - 11}L${u + 11} ${v}L${u} ${v + 11}L${u - 11} ${v}Z`}
        fill="var(--card)"
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
      <text x={u} y={v + 4.5} textAnchor="middle" fontSize={13} fontWeight={600} fill="var(--ink)">
        {number}
      </text>
    </g>
  );
}

const pathOf = (lines: readonly Corner[][], points: Float64Array, { at }: Projection): string => {
  // seen from above the height does not matter
  const z = points[2] ?? 0;
  const place = (c: Corner): Point => ({ ...c, z });
  return lines
    .map(
      (line) =>
        `M${line
          .map((c) =>
            at(place(c))
              .map((v) => v.toFixed(1))
              .join(' '),
          )
          .join('L')}`,
    )
    .join('');
};
