import { plainFace, rectangle, RECTANGLE_WALLS, type Shape } from '@pebble-hall/core/place';
import type { BoxRoom } from '@pebble-hall/core/room';

/** The Net Loft: timber ceiling, rug over boards, walls of plasterboard, drapes at the rear, one window. */
export const NET_LOFT: BoxRoom = {
  size: { x: 5.6, y: 4.1, z: 2.6 },
  absorption: [
    [0.26, 0.22, 0.16, 0.16, 0.18, 0.2, 0.22, 0.24], // front: plasterboard with shelves
    [0.28, 0.3, 0.36, 0.46, 0.52, 0.56, 0.58, 0.6], // rear: drapes over plasterboard
    [0.25, 0.2, 0.14, 0.13, 0.13, 0.14, 0.15, 0.16], // left: plasterboard and the window
    [0.27, 0.21, 0.15, 0.13, 0.14, 0.15, 0.16, 0.18], // right: plasterboard
    [0.2, 0.2, 0.24, 0.36, 0.44, 0.5, 0.55, 0.58], // floor: boards on joists, rug, sofa
    [0.32, 0.28, 0.22, 0.18, 0.15, 0.14, 0.15, 0.16], // ceiling: timber under the roof
  ],
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
};

const [front, rear, left, right, floor, ceiling] = NET_LOFT.absorption;
const { x, y, z } = NET_LOFT.size;

/** The same as it is drawn. */
export const NET_LOFT_SHAPE: Shape = {
  outline: rectangle(x, y),
  heightM: z,
  floorRise: 0,
  ceiling: { kind: 'flat' },
  isEnclosed: true,
  walls: [left, rear, right, front].map((absorption, i) => plainFace(RECTANGLE_WALLS[i]!, absorption)),
  floor: plainFace('Floor', floor),
  roof: plainFace('Ceiling', ceiling),
};
