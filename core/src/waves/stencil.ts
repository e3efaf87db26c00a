import { SIDES, type RoomGrid } from './roomGrid.js';

/** What each cell of a room takes from its neighbours in a step. */
export interface Stencil {
  /** (speed * step in time / step in space)^2 along each axis */
  squares: readonly [number, number, number];
  /** neighbours along each axis lie so many cells away */
  strides: readonly [number, number, number];
  /** rows of cells inside that no face bounds, from and up to */
  spans: Int32Array;
  /** cells that faces bound */
  cell: Int32Array;
  /** of each of those: what its own pressure counts and what that of one step before */
  own: Float64Array;
  last: Float64Array;
  /** and the six cells beside it with what theirs count; itself with nothing where a face stands between */
  beside: Int32Array;
  counts: Float64Array;
  /** all cells of the grid, those outside too */
  cells: number;
}

/** Pressures of all cells, of two steps in turn. */
export interface FieldStep {
  pressures: readonly [Float64Array, Float64Array];
  /** Puts what comes after one of the two in the place of what was before it. */
  step: (from: 0 | 1) => void;
}

/** @param squares see `Stencil` @param admittance of each face against that of air */
export function stencilOf(
  grid: RoomGrid,
  squares: readonly [number, number, number],
  admittance: Float64Array,
): Stencil {
  const { counts, inside, edges, share } = grid;
  const strides = [counts[1] * counts[2], counts[2], 1] as const;
  const count = edges.cell.length;
  const stencil: Stencil = {
    squares,
    strides,
    spans: spansOf(grid),
    cell: edges.cell,
    own: new Float64Array(count),
    last: new Float64Array(count),
    beside: new Int32Array(SIDES * count),
    counts: new Float64Array(SIDES * count),
    cells: inside.length,
  };
  edges.cell.forEach((cell, e) => {
    let own = 2;
    let lost = 0;
    for (let side = 0; side < SIDES; side++) {
      const at = SIDES * e + side;
      const d = side >> 1;
      const face = edges.faces[at]!;
      const isOpen = face < 0;
      stencil.beside[at] = isOpen ? cell + (side % 2 === 0 ? -1 : 1) * strides[d]! : cell;
      stencil.counts[at] = isOpen ? squares[d]! : 0;
      own -= stencil.counts[at]!;
      if (!isOpen) lost += (Math.sqrt(squares[d]!) * admittance[face]! * share[face]!) / 2;
    }
    // solved for the next step: what is lost goes by the mean of the next pressure and the last
    stencil.own[e] = own / (1 + lost);
    stencil.last[e] = (1 - lost) / (1 + lost);
    for (let at = SIDES * e; at < SIDES * (e + 1); at++)
      stencil.counts[at] = stencil.counts[at]! / (1 + lost);
  });
  return stencil;
}

function spansOf({ inside, edges }: RoomGrid): Int32Array {
  const plain = inside.slice();
  for (const cell of edges.cell) plain[cell] = 0;
  const spans: number[] = [];
  for (let i = 0; i < plain.length; i++) {
    if (!plain[i]) continue;
    const from = i;
    while (i < plain.length && plain[i]) i++;
    spans.push(from, i);
  }
  return Int32Array.from(spans);
}
