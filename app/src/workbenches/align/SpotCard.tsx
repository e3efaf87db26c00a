import type { ReactNode } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { percent } from '../../words/alignWords';

interface Props {
  points: readonly AlignedPoint[];
  /** sum efficiency at each; NaN where the two share nothing */
  efficiency: Float64Array;
  /** index of the one that is shown */
  chosen: number;
  onPoint: (index: number) => void;
  /** seats of the plan, in place of spots of the walk */
  isModelled: boolean;
  /** how much each of them counts, to be changed */
  weights?: ReactNode;
}

/** With more of them the bars stand without their figures. */
const MOST_FIGURES = 20;

/** How well it adds up at every spot: a strip of bars, the shown one marked; a click shows another one. */
export function SpotCard({ points, efficiency, chosen, onPoint, isModelled, weights }: Props) {
  const judged = [...efficiency.keys()].filter((i) => !Number.isNaN(efficiency[i]!) && points[i]!.weight > 0);
  const worst = judged.reduce((a, b) => (efficiency[b]! < efficiency[a]! ? b : a), judged[0] ?? 0);
  const isMany = points.length > MOST_FIGURES;
  const where = isModelled ? 'Over the seats' : 'Over the spots';
  return (
    <section className="card" aria-label={where}>
      <h2>
        {where}
        {weights}
        <small>
          {judged.length > 0
            ? `sum efficiency; worst ${percent(efficiency[worst]!)} at ${points[worst]!.name}`
            : 'nowhere do both share a band'}
        </small>
      </h2>
      {isMany ? (
        <Strip {...{ points, efficiency, chosen, onPoint }} />
      ) : (
        <div
          style={{
            flex: 1,
            display: 'grid',
            gridTemplateColumns: `repeat(${points.length}, minmax(0, 1fr))`,
            gap: 4,
            minHeight: 70,
          }}
        >
          {points.map((point, i) => (
            <button
              key={point.id ?? 'traces'}
              className="spot-bar"
              aria-pressed={i === chosen}
              aria-label={`${point.name}: ${wordsOf(efficiency[i]!)}${leftOut(point)}`}
              title={`${point.name}${leftOut(point)}`}
              onClick={() => onPoint(i)}
            >
              <Bar efficiency={efficiency[i]!} weight={point.weight} />
              <span className="mono spot-bar-figure">
                {Number.isNaN(efficiency[i]!) ? '–' : Math.round(100 * efficiency[i]!)}
              </span>
            </button>
          ))}
        </div>
      )}
    </section>
  );
}

const wordsOf = (e: number) => (Number.isNaN(e) ? 'no shared band' : percent(e));
const leftOut = ({ weight }: AlignedPoint) => (weight === 0 ? ', left out of the average' : '');

function Bar({ efficiency, weight }: { efficiency: number; weight: number }) {
  return (
    <span
      className="spot-bar-height"
      style={{
        height: `${Number.isNaN(efficiency) ? 0 : 100 * efficiency}%`,
        opacity: weight === 0 ? 0.45 : 1,
      }}
    />
  );
}

/** Too many to be pressed one by one: a strip to look at, of which a click takes the nearest; the list above the plots has them all. */
function Strip({
  points,
  efficiency,
  chosen,
  onPoint,
}: Pick<Props, 'points' | 'efficiency' | 'chosen' | 'onPoint'>) {
  return (
    <div
      role="img"
      aria-label={`Sum efficiency at ${points.length} places; shown: ${points[chosen]!.name}, ${wordsOf(efficiency[chosen]!)}`}
      style={{
        flex: 1,
        display: 'grid',
        gridTemplateColumns: `repeat(${points.length}, minmax(0, 1fr))`,
        gap: 1,
        minHeight: 70,
        cursor: 'pointer',
      }}
      onClick={(event) => {
        const { left, width } = event.currentTarget.getBoundingClientRect();
        const at = Math.floor((points.length * (event.clientX - left)) / width);
        onPoint(Math.max(0, Math.min(points.length - 1, at)));
      }}
    >
      {points.map((point, i) => (
        <span
          key={point.id ?? 'traces'}
          className="spot-bar"
          style={i === chosen ? { borderColor: 'var(--ink)' } : undefined}
          title={`${point.name}: ${wordsOf(efficiency[i]!)}${leftOut(point)}`}
        >
          <Bar efficiency={efficiency[i]!} weight={point.weight} />
        </span>
      ))}
    </div>
  );
}
