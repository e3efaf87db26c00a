import { facetArea, facetsOf, type Face, type Shape } from './shape.js';

/** Which surface of a shape: 'floor', 'roof', or the number of a wall; of a mesh in its place, the number of its surface. */
export type SurfaceKey = 'floor' | 'roof' | number | `mesh ${number}`;

/** A named surface of a place, with all its faces together. */
export interface Surface extends Face {
  key: SurfaceKey;
  /** square metres */
  area: number;
}

/** The surfaces of a shape: floor, walls in order, and what is over them; outdoors the ground alone. */
export function surfacesOf(shape: Shape): Surface[] {
  const facets = facetsOf(shape);
  const areaOf = (kind: 'wall' | 'floor' | 'roof') => facets.filter((f) => f.kind === kind).map(facetArea);
  const sum = (values: number[]) => values.reduce((a, b) => a + b, 0);
  const floor: Surface = { ...shape.floor, key: 'floor', area: sum(areaOf('floor')) };
  if (!shape.isEnclosed) return [floor];
  const walls = areaOf('wall');
  return [
    floor,
    ...shape.walls.map((face, i): Surface => ({ ...face, key: i, area: walls[i]! })),
    { ...shape.roof, key: 'roof', area: sum(areaOf('roof')) },
  ];
}

/** A shape in which one surface is changed. */
export function withSurface(shape: Shape, key: SurfaceKey, change: (face: Face) => Face): Shape {
  if (key === 'floor' || key === 'roof') return { ...shape, [key]: change(shape[key]) };
  return { ...shape, walls: shape.walls.map((face, i) => (i === key ? change(face) : face)) };
}
