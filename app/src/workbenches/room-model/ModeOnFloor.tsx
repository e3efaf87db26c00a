import { isWithin, type Corner } from '@pebble-hall/core/geometry';
import type { Projection } from '../../drawing';
import type { Mode, Modes } from './useModes';

interface Props {
  modes: Modes;
  mode: Mode;
  /** of the place: outside it there is nothing */
  outline: readonly Corner[];
  /** height at which it is looked at, metres */
  height: number;
  at: Projection['at'];
}

const CELLS = 36;

/** The pressure of a mode over the floor at the height of ears: the more colour, the more of it; blank where there is none. One colour for each sign. */
export function ModeOnFloor({ modes, mode, outline, height, at }: Props) {
  const { least: origin, most } = modes;
  const size = { x: most.x - origin.x, y: most.y - origin.y };
  const [columns, rows] =
    size.x > size.y
      ? [CELLS, Math.max(4, Math.round((CELLS * size.y) / size.x))]
      : [Math.max(4, Math.round((CELLS * size.x) / size.y)), CELLS];
  const cell = (i: number, j: number) => {
    const corner = (u: number, v: number) =>
      at({ x: origin.x + (size.x * u) / columns, y: origin.y + (size.y * v) / rows, z: height });
    const middle = {
      x: origin.x + (size.x * (i + 0.5)) / columns,
      y: origin.y + (size.y * (j + 0.5)) / rows,
      z: height,
    };
    if (!isWithin(outline, middle)) return null;
    const p = modes.pressure(mode, middle);
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
