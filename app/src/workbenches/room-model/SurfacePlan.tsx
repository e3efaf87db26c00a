import { EAR_M, type Surface, type SurfaceKey } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { PlaceDrawing, projectionOf } from '../../drawing';

import { ModeOnFloor } from './ModeOnFloor';
import type { Mode, Modes } from './useModes';

interface Props {
  place: Place;
  surfaces: readonly Surface[];
  chosen: SurfaceKey;
  onChoose: (key: SurfaceKey) => void;
  /** a mode to draw over the floor; null for none */
  shown: { modes: Modes; mode: Mode } | null;
}

/** Around the drawing, in its units. */
const [MARGIN, CAPTION] = [22, 40];

/** The place from above: a wall is chosen with a click on it. */
export function SurfacePlan({ place, surfaces, chosen, onChoose, shown }: Props) {
  const { width, height } = useMemo(() => projectionOf(place.shape, 'above'), [place.shape]);
  const { outline } = place.shape;
  return (
    <PlaceDrawing
      place={place}
      live={[]}
      window={[-MARGIN, -CAPTION, width + 2 * MARGIN, height + CAPTION + MARGIN]}
      caption=""
      under={
        shown
          ? ({ at }) => (
              <ModeOnFloor {...shown} outline={place.shape.outline} height={earsOf(place)} at={at} />
            )
          : undefined
      }
      over={({ at }) =>
        surfaces.flatMap(({ key, name }) => {
          if (typeof key !== 'number') return [];
          const [a, b] = [outline[key]!, outline[(key + 1) % outline.length]!].map((c) => at({ ...c, z: 0 }));
          const line = { x1: a![0], y1: a![1], x2: b![0], y2: b![1] };
          const isChosen = key === chosen;
          return [
            <g
              key={key}
              role="button"
              tabIndex={0}
              aria-pressed={isChosen}
              aria-label={name}
              style={{ cursor: 'pointer' }}
              onClick={() => onChoose(key)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                onChoose(key);
              }}
            >
              <title>{name}</title>
              <polygon points={around(a!, b!)} fill="transparent" />
              <line {...line} stroke={isChosen ? 'var(--buoy)' : 'transparent'} strokeWidth={8} />
            </g>,
          ];
        })
      }
    />
  );
}

/** The height of the ears of who sits at the home spot, metres. */
const earsOf = ({ spots }: Place): number => spots[0]?.position.z ?? EAR_M.seated;

/** Half as wide as a finger: what is hit around a wall, in units of the drawing. */
const REACH = 13;

/** The corners of a strip along a line. */
function around([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]): string {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [u, v] = [(-REACH * (y2 - y1)) / length, (REACH * (x2 - x1)) / length];
  return `${x1 + u},${y1 + v} ${x2 + u},${y2 + v} ${x2 - u},${y2 - v} ${x1 - u},${y1 - v}`;
}
