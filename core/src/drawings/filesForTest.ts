import type { Point } from '../geometry/index.js';

/** A room of 8 by 5 by 3 units with its lower corner at a point, six faces of four corners, as OBJ text. */
export function boxObj({ x, y, z }: Point = { x: 0, y: 0, z: 0 }, without: string[] = []): string {
  const corners = [0, 1].flatMap((k) => [
    [x, y, z + 3 * k],
    [x + 8, y, z + 3 * k],
    [x + 8, y + 5, z + 3 * k],
    [x, y + 5, z + 3 * k],
  ]);
  const faces: Record<string, number[]> = {
    Floor: [4, 3, 2, 1],
    Ceiling: [5, 6, 7, 8],
    Left: [1, 2, 6, 5],
    Rear: [2, 3, 7, 6],
    Right: [3, 4, 8, 7],
    Front: [4, 1, 5, 8],
  };
  return [
    ...corners.map((c) => `v ${c.join(' ')}`),
    ...Object.entries(faces)
      .filter(([name]) => !without.includes(name))
      .flatMap(([name, f]) => [`o ${name}`, `f ${f.join(' ')}`]),
    '',
  ].join('\n');
}

/** Group codes and values, one pair each, as DXF text with the entities given. */
export function dxf(
  entities: (string | number)[][],
  { insunits, blocks = [] }: { insunits?: number; blocks?: (string | number)[][] } = {},
): string {
  const header =
    insunits === undefined
      ? []
      : [
          [9, '$INSUNITS'],
          [70, insunits],
        ];
  const pairs = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    ...header,
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'BLOCKS'],
    ...blocks,
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...entities,
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return pairs.map(([code, value]) => `${code}\n${value}`).join('\n') + '\n';
}

export const lwpolyline = (
  layer: string,
  points: [x: number, y: number, bulge?: number][],
  isClosed = true,
) => [
  [0, 'LWPOLYLINE'],
  [8, layer],
  [90, points.length],
  [70, isClosed ? 1 : 0],
  ...points.flatMap(([x, y, bulge]) => [[10, x], [20, y], ...(bulge ? [[42, bulge]] : [])]),
];

export const line = (layer: string, [x1, y1]: [number, number], [x2, y2]: [number, number]) => [
  [0, 'LINE'],
  [8, layer],
  [10, x1],
  [20, y1],
  [30, 0],
  [11, x2],
  [21, y2],
  [31, 0],
];
