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
}

/** With more of them the bars stand without their figures. */
const MOST_FIGURES = 20;

/** How well it adds up at every spot: a strip of bars, the shown one marked; a click shows another one. */
export function SpotCard({ points, efficiency, chosen, onPoint, isModelled }: Props) {
  const judged = [...efficiency.keys()].filter((i) => !Number.isNaN(efficiency[i]!) && points[i]!.weight > 0);
  const worst = judged.reduce((a, b) => (efficiency[b]! < efficiency[a]! ? b : a), judged[0] ?? 0);
  const isMany = points.length > MOST_FIGURES;
  const where = isModelled ? 'Over the seats' : 'Over the spots';
  return (
    <section className="card" aria-label={where}>
      <h2>
        {where}
        <small>
          {judged.length > 0
            ? `sum efficiency; worst ${percent(efficiency[worst]!)} at ${points[worst]!.name}`
            : 'nowhere do both share a band'}
        </small>
      </h2>
      <div
        style={{
          flex: 1,
          display: 'grid',
          gridTemplateColumns: `repeat(${points.length}, minmax(0, 1fr))`,
          gap: isMany ? 1 : 4,
          minHeight: 70,
        }}
      >
        {points.map((point, i) => {
          const e = efficiency[i]!;
          const share = Number.isNaN(e) ? 0 : e;
          return (
            <button
              key={point.id ?? 'traces'}
              className="spot-bar"
              aria-pressed={i === chosen}
              aria-label={`${point.name}: ${Number.isNaN(e) ? 'no shared band' : percent(e)}${point.weight === 0 ? ', left out of the average' : ''}`}
              title={`${point.name}${point.weight === 0 ? ', left out of the average' : ''}`}
              onClick={() => onPoint(i)}
            >
              <span
                className="spot-bar-height"
                style={{ height: `${100 * share}%`, opacity: point.weight === 0 ? 0.45 : 1 }}
              />
              {isMany ? null : (
                <span className="mono spot-bar-figure">{Number.isNaN(e) ? '–' : Math.round(100 * e)}</span>
              )}
            </button>
          );
        })}
      </div>
    </section>
  );
}
