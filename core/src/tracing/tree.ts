/** A binary tree of boxes around triangles. */
export interface Tree {
  /** of each node the boxes of its two children: least x y z, most x y z of the first, then of the second */
  boxes: Float64Array;
  /** of each node its two children: a node from 0 on, or -1 - s for a leaf that begins at s in `order` */
  children: Int32Array;
  /** triangles in the order of the leaves */
  order: Int32Array;
  /** at the beginning of each leaf in `order`: how many triangles it has */
  counts: Int32Array;
}

/** Leaves have so many triangles at most. */
const MOST_IN_LEAF = 4;
/** Where a node may be cut, between so many slices. */
const SLICES = 16;

type Box = [number, number, number, number, number, number];
const empty = (): Box => [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

function widen(box: Box, boxes: Float64Array, at: number): void {
  for (let k = 0; k < 3; k++) {
    if (boxes[at + k]! < box[k]!) box[k] = boxes[at + k]!;
    if (boxes[at + 3 + k]! > box[3 + k]!) box[3 + k] = boxes[at + 3 + k]!;
  }
}

const halfSurface = (b: Box) => {
  const [x, y, z] = [b[3] - b[0], b[4] - b[1], b[5] - b[2]];
  return x < 0 ? 0 : x * y + y * z + z * x;
};

/**
 * Builds a tree by the surface area heuristic over slices (Wald 2007).
 * @param boxes of each triangle, 6 numbers: least x y z, most x y z
 */
export function treeOf(boxes: Float64Array): Tree {
  const count = boxes.length / 6;
  const order = Int32Array.from({ length: count }, (_, i) => i);
  const counts = new Int32Array(count);
  const nodeBoxes: number[] = [];
  const children: number[] = [];
  const boxOf = (from: number, to: number) => {
    const box = empty();
    for (let i = from; i < to; i++) widen(box, boxes, 6 * order[i]!);
    return box;
  };
  const leaf = (from: number, to: number) => {
    counts[from] = to - from;
    return -1 - from;
  };
  const build = (from: number, to: number): number => {
    if (to - from <= MOST_IN_LEAF) return leaf(from, to);
    const cut = cutOf(boxes, order, from, to);
    const node = children.length / 2;
    children.push(0, 0);
    nodeBoxes.push(...boxOf(from, cut), ...boxOf(cut, to));
    children[2 * node] = build(from, cut);
    children[2 * node + 1] = build(cut, to);
    return node;
  };
  if (build(0, count) < 0) {
    // a tree of one leaf: a node around it, whose other child is empty
    children.push(-1, -1);
    nodeBoxes.push(...boxOf(0, count), ...empty());
  }
  return {
    boxes: Float64Array.from(nodeBoxes),
    children: Int32Array.from(children),
    order,
    counts,
  };
}

/** Parts the triangles of a node in two: the index in `order` at which the second part begins. */
function cutOf(boxes: Float64Array, order: Int32Array, from: number, to: number): number {
  const middle = (i: number, axis: number) => boxes[6 * i + axis]! + boxes[6 * i + 3 + axis]!;
  let best = { cost: Infinity, axis: 0, slice: 0, least: 0, scale: 0 };
  for (let axis = 0; axis < 3; axis++) {
    let [least, most] = [Infinity, -Infinity];
    for (let i = from; i < to; i++) {
      const m = middle(order[i]!, axis);
      if (m < least) least = m;
      if (m > most) most = m;
    }
    if (!(most > least)) continue;
    const scale = (SLICES * (1 - 1e-9)) / (most - least);
    const [slices, numbers] = [Array.from({ length: SLICES }, empty), new Array<number>(SLICES).fill(0)];
    for (let i = from; i < to; i++) {
      const slice = Math.floor((middle(order[i]!, axis) - least) * scale);
      widen(slices[slice]!, boxes, 6 * order[i]!);
      numbers[slice]!++;
    }
    const costs = new Float64Array(SLICES);
    const sweep = (slicesInOrder: number[], at: (s: number) => number) => {
      const box = empty();
      let n = 0;
      for (const s of slicesInOrder) {
        const b = slices[s]!;
        if (numbers[s]! > 0) widen(box, Float64Array.from(b), 0);
        n += numbers[s]!;
        costs[at(s)] = costs[at(s)]! + n * halfSurface(box);
      }
    };
    const up = Array.from({ length: SLICES - 1 }, (_, s) => s);
    sweep(up, (s) => s);
    sweep(
      up.map((s) => SLICES - 1 - s),
      (s) => s - 1,
    );
    for (const slice of up)
      if (costs[slice]! < best.cost) best = { cost: costs[slice]!, axis, slice, least, scale };
  }
  if (best.cost === Infinity) return (from + to) >> 1;
  let cut = from;
  for (let i = from; i < to; i++) {
    const slice = Math.floor((middle(order[i]!, best.axis) - best.least) * best.scale);
    if (slice > best.slice) continue;
    [order[i], order[cut]] = [order[cut]!, order[i]!];
    cut++;
  }
  return cut > from && cut < to ? cut : (from + to) >> 1;
}
