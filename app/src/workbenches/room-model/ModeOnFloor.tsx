import type { Point } from '@pebble-hall/core/geometry';
import { modePressure, type BoxMode } from '@pebble-hall/core/room';
import type { Projection } from '../../drawing';
import type { Modes } from './useModes';

interface Props {
  modes: Modes;
  mode: BoxMode;
  /** height at which it is looked at, metres */
  height: number;
  at: Projection['at'];
}

const CELLS = 36;

/** A place as it lies in the box. */
export const inBox = ({ origin }: Pick<Modes, 'origin'>, { x, y, z }: Point): Point => ({
  x: x - origin.x,
  y: y - origin.y,
  z: z - origin.z,
});

/** The pressure of a mode over the floor at the height of ears: the more colour, the more of it; blank where there is none. One colour for each sign. */
export function ModeOnFloor({ modes, mode, height, at }: Props) {
  const { size, origin } = modes;
  const [columns, rows] =
    size.x > size.y
      ? [CELLS, Math.max(4, Math.round((CELLS * size.y) / size.x))]
      : [Math.max(4, Math.round((CELLS * size.x) / size.y)), CELLS];
  const cell = (i: number, j: number) => {
    const corner = (u: number, v: number) =>
      at({ x: origin.x + (size.x * u) / columns, y: origin.y + (size.y * v) / rows, z: height });
    const middle = {
      x: (size.x * (i + 0.5)) / columns,
      y: (size.y * (j + 0.5)) / rows,
      z: height - origin.z,
    };
    const p = modePressure(mode, size, middle);
    const [[u0, v0], [u1, v1]] = [corner(i, j), corner(i + 1, j + 1)];
    return (
      <rect
        key={`${i} ${j}`}
        x={Math.min(u0, u1)}
        y={Math.min(v0, v1)}
        width={Math.abs(u1 - u0)}
        height={Math.abs(v1 - v0)}
        fill={p > 0 ? 'var(--buoy)' : 'var(--kelp)'}
        opacity={0.75 * Math.abs(p)}
      />
    );
  };
  return (
    <g pointerEvents="none" shapeRendering="crispEdges">
      {Array.from({ length: columns * rows }, (_, k) => cell(k % columns, Math.floor(k / columns)))}
    </g>
  );
}
