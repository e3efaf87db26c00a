import type { Guide } from '@pebble-hall/core/place';
import type { Projection } from '../../drawing';

/** The lines that hold what is dragged. */
export function GuideLines({ guides, projection }: { guides: readonly Guide[]; projection: Projection }) {
  const { width, height, axes, at } = projection;
  return (
    <>
      {guides.map(({ axis, at: where, because }) => {
        const [u, v] = at({ x: 0, y: 0, z: 0, [axis]: where });
        const d = axis === axes[0] ? `M${u} 0V${height}` : `M0 ${v}H${width}`;
        return (
          <path
            key={axis}
            d={d}
            stroke="var(--kelp)"
            strokeDasharray={because === 'opposite' ? '2 4' : '7 4'}
          />
        );
      })}
    </>
  );
}
