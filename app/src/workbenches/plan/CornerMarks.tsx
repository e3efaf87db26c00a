import type { Place } from '@pebble-hall/core/project';
import { WALLS, type Projection } from '../../drawing';
import { withCornerAfter } from './corners';
import { editPlace } from './usePlan';

/** In the middle of every wall a mark that makes a corner there. */
export function CornerMarks({ place, projection }: { place: Place; projection: Projection }) {
  const { outline, walls } = place.shape;
  if (projection.view !== 'above') return null;
  return (
    <>
      {outline.map((a, i) => {
        const b = outline[(i + 1) % outline.length]!;
        const [u, v] = projection.at({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, z: 0 });
        const add = () => void editPlace('a new corner', (p) => withCornerAfter(p, `${WALLS} ${i}`));
        return (
          <g
            key={i}
            role="button"
            tabIndex={0}
            aria-label={`New corner in ${walls[i]!.name}`}
            style={{ cursor: 'pointer' }}
            transform={`translate(${u},${v})`}
            onClick={(event) => {
              event.stopPropagation();
              add();
            }}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' && event.key !== ' ') return;
              event.preventDefault();
              event.stopPropagation();
              add();
            }}
          >
            <circle r={9} fill="var(--card)" stroke="var(--kelp)" strokeWidth={1.6} />
            <path d="M-4 0H4M0 -4V4" stroke="var(--kelp)" strokeWidth={1.8} />
          </g>
        );
      })}
    </>
  );
}
